<script setup lang="ts">
import type { Stamp } from '~~/core/letters'

/** The stamps: how each looks, in which letters it is, renamed and taken away. */
const stamps = useStamps()
const live = useLive()
const loaded = ref(false)
onMounted(async () => {
  await stamps.load()
  loaded.value = true
})
watch(
  () => live.changes,
  () => void stamps.load(),
)
const inLetters = ({ usedIn }: Stamp) => {
  const follow = usedIn.filter(({ follows }) => follows)
  const gone = usedIn.length - follow.length
  if (!usedIn.length) return 'In no letter yet.'
  return [
    follow.length ? `Follows in ${several(follow.length, 'letter', 'letters')}.` : '',
    gone ? `Stands in ${several(gone, 'letter that went out', 'letters that went out')}.` : '',
  ]
    .filter(Boolean)
    .join(' ')
}
/** Where a stamp is changed: in the latest letter that has it and has not gone out. */
const placeOf = ({ usedIn }: Stamp) => usedIn.find(({ follows }) => follows)
</script>

<template>
  <div class="mx-auto max-w-[1180px] px-6 py-5">
    <p class="small"><NuxtLink to="/mail" class="link">Mail</NuxtLink></p>
    <h1>Stamps</h1>
    <p class="muted mt-0.5">
      Rows kept for reuse. Change one in any letter, and every letter that has not gone out follows.
    </p>
    <ul
      v-if="stamps.stamps.length"
      class="m-0 mt-4 grid list-none grid-cols-3 gap-4 p-0"
      aria-label="Stamps"
    >
      <li v-for="stamp in stamps.stamps" :key="stamp.id" class="sheet overflow-hidden">
        <HtmlThumb
          :path="`/api/stamps/${stamp.id}/sample?v=${stamp.version}`"
          :title="stamp.name"
        />
        <div class="px-3.5 py-2.5">
          <KeptInput
            :value="stamp.name"
            class="field field-sm border-transparent !px-1 font-semibold hover:border-line"
            :aria-label="`Name of the stamp ${stamp.name}`"
            maxlength="100"
            @taken="stamps.rename(stamp.id, $event)"
          />
          <p class="muted small mt-1 px-1">{{ inLetters(stamp) }}</p>
          <p class="mt-2 flex items-center gap-2">
            <NuxtLink
              v-if="placeOf(stamp)"
              class="btn btn-sm"
              :to="`/mail/${placeOf(stamp)!.id}/letter`"
              >Change it in “{{ placeOf(stamp)!.name }}”</NuxtLink
            ><button
              class="btn btn-sm ml-auto"
              :aria-label="`Delete the stamp ${stamp.name}`"
              @click="stamps.remove(stamp)"
            >
              Delete
            </button>
          </p>
        </div>
      </li>
    </ul>
    <div v-else-if="loaded" class="sheet mt-4 p-6">
      <p>
        There are no stamps yet. Choose a row in a letter, for example the links at its end, and
        press <b>Keep this row as a stamp</b> at the right.
      </p>
      <NuxtLink class="btn btn-go mt-3" to="/mail">Open a letter</NuxtLink>
    </div>
  </div>
</template>
