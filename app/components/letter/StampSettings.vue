<script setup lang="ts">
import { emptyLetter, hasFooter, type StampContent } from '~~/core/letters'
import { textsOf } from '~~/core/proof'

/** The stamp that the chosen row is linked to, or a way to keep the row as one. */
const store = useMailing()
const stamps = useStamps()
const row = computed(() => store.settledRow)
const stamp = computed(() => stamps.stampOf(row.value))
const calmRow = useCalm(() => store.chosenRow)
const differs = computed(() => calmRow.value !== null && stamps.differs(calmRow.value))
const others = computed(
  () => stamp.value?.usedIn.filter(({ id, follows }) => follows && id !== store.mailing!.id) ?? [],
)
const naming = ref(false)
const name = ref('')
const busy = ref(false)
watch(
  () => row.value?.id,
  () => (naming.value = false),
)
async function keep() {
  if (!store.chosenRow || !name.value.trim()) return
  busy.value = true
  if (await stamps.keep(name.value.trim(), store.chosenRow!)) {
    naming.value = false
    name.value = ''
  }
  busy.value = false
}
async function spread() {
  busy.value = true
  await stamps.spread(store.chosenRow!)
  busy.value = false
}
/** What a stamp holds, in its own words. */
function describe(_: string, value: unknown): string {
  const letter = emptyLetter()
  const rows = [{ id: 'row', ...(value as StampContent) }]
  const texts = textsOf({ ...letter, document: { ...letter.document, rows } })
  const links = rows.flatMap(({ columns }) =>
    columns.flatMap(({ blocks }) =>
      blocks.flatMap((block) => (block.kind === 'social' ? block.links : [])),
    ),
  )
  const words = [...texts.map(({ text }) => text), ...links.map(({ name }) => name)]
  return words.join(' · ') || 'nothing but pictures and lines'
}
const id = useId()
</script>

<template>
  <section
    v-if="row && !hasFooter(row)"
    class="border-b border-line px-3.5 py-3 text-[12.5px]"
    aria-label="Stamp"
  >
    <template v-if="stamp">
      <h2>Stamp: {{ stamp.name }}</h2>
      <p class="muted mt-1">
        <template v-if="others.length"
          >Also in {{ several(others.length, 'letter', 'letters') }} that will go out:
          {{ others.map((one) => one.name).join(', ') }}.</template
        ><template v-else>In no other letter that will go out.</template>
      </p>
      <template v-if="differs">
        <p class="mt-1.5 border-l-2 border-dashed border-brass-500 pl-2">
          You changed it here. The stamp is as it was.
        </p>
        <div class="mt-2 flex flex-wrap gap-1.5">
          <button class="btn btn-sm btn-go" :disabled="busy" @click="spread">
            Change it everywhere
          </button>
          <button class="btn btn-sm" @click="stamps.takeBack(store.chosenRow!)">Reset</button>
        </div>
      </template>
      <KeptState class="mt-2" :keeper="stamps.keeperFor(stamp.id)" :describe="describe" />
      <button class="btn btn-sm mt-2" @click="stamps.detach(row)">Detach</button>
    </template>
    <form v-else-if="naming" class="flex gap-1.5" @submit.prevent="keep">
      <label :for="`${id}-name`" class="sr-only">Name of the stamp</label>
      <input
        :id="`${id}-name`"
        v-model="name"
        class="field field-sm"
        placeholder="What it is called"
        maxlength="100"
        @vue:mounted="({ el }: { el: HTMLElement }) => el.focus()"
        @keydown.escape="naming = false"
      /><button class="btn btn-sm btn-go" :disabled="busy || !name.trim()">Keep</button>
    </form>
    <button v-else class="btn btn-sm" @click="naming = true">Keep this row as a stamp…</button>
  </section>
</template>
