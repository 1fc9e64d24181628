<script setup lang="ts">
import { manners, taken, tighten, type Manner, type Proposal } from '~~/core/letters/wording'

/** What could be said shorter, plainer or otherwise: proposals to take one by one. */
const emit = defineEmits<{ close: [] }>()
const store = useMailing()
const manner = ref<Manner>('shorten')
/** Passed over, by what they say about what. */
const passed = ref(new Set<string>())
const keyOf = ({ blockId, before, after, around }: Proposal) =>
  [blockId, before, after, ...around].join('|')
const all = computed(
  () =>
    Object.fromEntries(
      manners.map((one) => [
        one.key,
        tighten(store.letter!.document, one.key).filter(
          (proposal) => !passed.value.has(keyOf(proposal)),
        ),
      ]),
    ) as Record<Manner, Proposal[]>,
)
const here = computed(() => all.value[manner.value])
function take(proposals: Proposal[]) {
  const { letter } = store
  if (!letter) return
  // From the end, so that the places of the others stay.
  const document = proposals.toReversed().reduce((next, one) => taken(next, one), letter.document)
  store.change({ ...letter, document }, `tighten ${Date.now()}`)
}
function pass(proposal: Proposal) {
  passed.value = new Set([...passed.value, keyOf(proposal)])
}
</script>

<template>
  <section class="border-b border-line bg-canvas-50 px-3.5 py-3 text-[12.5px]" aria-label="Tighten">
    <div class="flex items-baseline justify-between">
      <h2>Tighten</h2>
      <button type="button" class="link small" @click="emit('close')">Close</button>
    </div>
    <ChoiceButtons
      v-model="manner"
      class="mt-2"
      label="How to say it"
      :options="manners.map(({ key, name }) => ({ value: key, name, count: all[key].length }))"
    />
    <p v-if="!here.length" class="muted mt-2">Nothing to say otherwise.</p>
    <ul class="m-0 mt-2 list-none space-y-2 p-0">
      <li
        v-for="one in here.slice(0, 30)"
        :key="`${one.blockId} ${one.paragraph} ${one.from}`"
        class="rounded border border-line bg-sheet px-2 py-1.5"
      >
        <button type="button" class="block w-full text-left" @click="store.chosen = one.blockId">
          <span class="muted">{{ one.around[0] }}</span><del class="text-bad-600">{{
            one.before
          }}</del
          ><ins v-if="one.after" class="ml-1 font-semibold text-canvas-700 no-underline">
            {{ one.after }}</ins
          ><span class="muted">{{ one.around[1] }}</span>
        </button>
        <div class="mt-1 flex gap-3">
          <button type="button" class="link font-semibold" @click="take([one])">Take it</button
          ><button type="button" class="link" @click="pass(one)">Leave it</button>
        </div>
      </li>
    </ul>
    <button v-if="here.length > 1" type="button" class="btn btn-sm mt-2" @click="take(here)">
      Take all {{ here.length }}
    </button>
  </section>
</template>
