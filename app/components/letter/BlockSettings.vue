<script setup lang="ts">
import { blockNames, type Align, type HeadingLevel, type Style } from '~~/core/letters'

/** The settings of the chosen block. */
const store = useMailing()
const presence = usePresence()
const held = computed(() => (store.chosen ? presence.whoIsIn(store.chosen) : undefined))
const block = computed(() => (held.value ? null : store.settledBlock))
const row = computed(() => store.settledRow)
/** "Everyone else" needs a block with a rule before it in the same column. */
const canBeRest = computed(() => {
  const column = row.value?.columns.find(({ blocks }) =>
    blocks.some(({ id }) => id === store.chosen),
  )
  const at = column?.blocks.findIndex(({ id }) => id === store.chosen) ?? 0
  const before = column?.blocks[at - 1]?.shownTo
  return !!before && 'rule' in before
})
const inRow = computed(() => (row.value?.columns.flatMap(({ blocks }) => blocks).length ?? 0) > 1)
function resize(rows: number, columns: number) {
  if (block.value?.kind !== 'table') return
  const { cells } = block.value
  const height = Math.max(1, cells.length + rows)
  const width = Math.max(1, cells[0]!.length + columns)
  store.update(block.value.id, {
    cells: Array.from({ length: height }, (_, r) =>
      Array.from({ length: width }, (_, c) => cells[r]?.[c] ?? ''),
    ),
  })
}
const { answer: letterheads } = useAnswer<{ others: { id: number; name: string }[] }>(
  () => '/api/letterhead',
)
// Apart, so that the settings are not drawn again as one writes.
const rowStyle = computed(() => row.value?.style)
const blockStyle = computed(() => block.value?.style)
const levels = computed(() => [
  { level: 'letter' as const, style: store.letterStyle },
  { level: 'row' as const, style: rowStyle.value },
  { level: 'block' as const, style: blockStyle.value },
])
const letterLevels = computed(() => [{ level: 'letter' as const, style: store.letterStyle }])
const bordered = computed(() => ['picture', 'button'].includes(block.value?.kind ?? ''))
const text = (event: Event) => (event.target as HTMLInputElement).value
/** A picture alone in its row can go from edge to edge. */
const canReachEdge = computed(
  () => ['picture', 'film'].includes(block.value?.kind ?? '') && row.value?.columns.length === 1,
)
function setStyle(change: Style) {
  const next = { ...block.value!.style, ...change }
  for (const key of Object.keys(next) as (keyof Style)[])
    if (next[key] === undefined) delete next[key]
  store.update(block.value!.id, { style: Object.keys(next).length ? next : undefined })
}
</script>

<template>
  <section class="border-b border-line px-3.5 py-3">
    <p v-if="held">
      <b>{{ held }}</b> is writing in this block. It is free again when they go on to another one.
    </p>
    <template v-else-if="block">
      <h2>{{ blockNames[block.kind] }}</h2>
      <TextTools
        v-if="'text' in block && store.editor"
        :key="block.id"
        :editor="store.editor"
        :lists="block.kind !== 'heading'"
      />
      <div class="mt-2.5 grid grid-cols-[92px_1fr] items-center gap-x-2.5 gap-y-1.5 text-[12.5px]">
        <template v-if="block.kind === 'heading'">
          <label for="level">Size</label>
          <select
            id="level"
            class="field field-sm"
            :value="block.level"
            @change="store.update(block.id, { level: Number(text($event)) as HeadingLevel })"
          >
            <option :value="1">large</option>
            <option :value="2">middle</option>
            <option :value="3">as large as text</option>
          </select>
          <label for="capitals">Letter case</label>
          <select
            id="capitals"
            class="field field-sm"
            :value="block.style?.capitals ? 'capitals' : ''"
            @change="setStyle({ capitals: text($event) === 'capitals' || undefined })"
          >
            <option value="">as typed</option>
            <option value="capitals">small capitals</option>
          </select>
        </template>
        <HrefField v-if="'href' in block" :block="block" />
        <template v-if="'align' in block">
          <label for="align">Align</label>
          <select
            id="align"
            class="field field-sm"
            :value="block.align"
            @change="store.update(block.id, { align: text($event) as 'left' })"
          >
            <option value="left">left</option>
            <option value="center">in the middle</option>
            <option value="right">right</option>
          </select>
        </template>
        <template v-if="block.kind === 'button'">
          <label for="button-look">Look</label>
          <select
            id="button-look"
            class="field field-sm"
            :value="block.outline ? 'outline' : ''"
            @change="
              store.update(block.id, { outline: text($event) === 'outline' ? true : undefined })
            "
          >
            <option value="">filled</option>
            <option value="outline">outline</option>
          </select>
          <label for="button-width">Width</label>
          <select
            id="button-width"
            class="field field-sm"
            :value="block.full ? 'full' : ''"
            @change="store.update(block.id, { full: text($event) === 'full' ? true : undefined })"
          >
            <option value="">as wide as its words</option>
            <option value="full">as wide as its column</option>
          </select>
        </template>
        <template v-if="block.kind === 'product'">
          <label for="was">Price before</label>
          <input
            id="was"
            class="field field-sm"
            maxlength="60"
            placeholder="none"
            :value="block.was ?? ''"
            @input="store.update(block.id, { was: text($event) || undefined })"
          />
        </template>
        <template v-if="block.kind === 'picture' || block.kind === 'footer'">
          <label for="stands">Align</label>
          <select
            id="stands"
            class="field field-sm"
            :value="block.style?.align ?? 'left'"
            @change="
              setStyle({ align: text($event) === 'left' ? undefined : (text($event) as Align) })
            "
          >
            <option value="left">left</option>
            <option value="center">in the middle</option>
            <option value="right">right</option>
          </select>
        </template>
        <template v-if="canReachEdge">
          <label for="edge">Sides</label>
          <select
            id="edge"
            class="field field-sm"
            :value="block.style?.edge ? 'edge' : ''"
            @change="setStyle({ edge: text($event) === 'edge' || undefined })"
          >
            <option value="">as text</option>
            <option value="edge">edge to edge</option>
          </select>
        </template>
        <template v-if="block.kind === 'picture' || block.kind === 'film'">
          <label for="alt">Alternative text</label>
          <input
            id="alt"
            class="field field-sm"
            placeholder="What one sees on it"
            :value="block.alt"
            @input="store.update(block.id, { alt: text($event) })"
          />
        </template>
        <template v-if="block.kind === 'picture'">
          <label for="width">Width</label>
          <span class="flex items-center gap-2"
            ><input
              id="width"
              class="min-w-0 flex-1"
              type="range"
              min="10"
              max="100"
              step="5"
              :value="block.width"
              @input="store.update(block.id, { width: Number(text($event)) })"
            />{{ block.width }}%</span
          >
          <label for="narrow-width">On phones</label>
          <select
            id="narrow-width"
            class="field field-sm"
            :value="block.narrowWidth ?? ''"
            @change="
              store.update(block.id, {
                narrowWidth: text($event) === '' ? undefined : Number(text($event)),
              })
            "
          >
            <option value="">as on desktops</option>
            <option v-for="n in [25, 33, 50, 75, 100]" :key="n" :value="n">{{ n }}%</option>
          </select>
        </template>
        <template v-if="'src' in block && block.src"
          ><span /><button
            class="btn btn-sm justify-center"
            @click="store.update(block.id, { src: '' })"
          >
            Choose another
          </button></template
        >
        <template v-if="block.kind === 'contents'">
          <label for="contents-title">Title</label>
          <input
            id="contents-title"
            class="field field-sm"
            :value="block.title"
            @input="store.update(block.id, { title: text($event) })"
          />
        </template>
        <template v-if="block.kind === 'table'">
          <span id="table-size">Size</span>
          <div class="flex flex-wrap gap-1" role="group" aria-labelledby="table-size">
            <button class="btn btn-sm" @click="resize(1, 0)">Row +</button>
            <button class="btn btn-sm" @click="resize(-1, 0)">Row −</button>
            <button class="btn btn-sm" @click="resize(0, 1)">Column +</button>
            <button class="btn btn-sm" @click="resize(0, -1)">Column −</button>
          </div>
          <label for="table-head">First row</label>
          <label class="flex items-center gap-2"
            ><input
              id="table-head"
              type="checkbox"
              :checked="block.head"
              @change="
                store.update(block.id, { head: ($event.target as HTMLInputElement).checked })
              "
            />is a head</label
          >
        </template>
        <SocialSettings v-if="block.kind === 'social'" :block="block" />
        <PicksSettings v-if="block.kind === 'picks'" :block="block" />
        <FeedSettings v-if="block.kind === 'feed'" :key="block.id" :block="block" />
        <HeightField v-if="block.kind === 'space'" :block="block" />
        <div v-if="block.kind === 'html'" class="col-span-2">
          <textarea
            class="field h-56 font-mono leading-normal"
            :value="block.html"
            aria-label="HTML"
            placeholder="<p>Your own HTML</p>"
            spellcheck="false"
            @input="store.update(block.id, { html: text($event) })"
          />
          <p class="muted">
            What could run, send or load something from elsewhere is removed before it stands in the
            letter.
          </p>
        </div>
        <p v-if="block.kind === 'footer'" class="muted col-span-2">
          The postal address comes from <NuxtLink to="/settings" class="link">Settings</NuxtLink>.
        </p>
      </div>
      <div v-if="block.kind !== 'footer'" class="mt-2 space-y-2">
        <ShownToField
          v-if="inRow"
          :key="block.id"
          :shown-to="block.shownTo"
          :name="blockNames[block.kind]"
          :can-be-rest="canBeRest"
          @change="store.update(block.id, { shownTo: $event })"
        />
        <HiddenField :hidden="block.hidden" @change="store.update(block.id, { hidden: $event })" />
      </div>
      <details class="mt-2 text-[12.5px]">
        <summary class="cursor-pointer">Look of the block</summary>
        <StyleSettings
          class="mt-1.5"
          :levels="levels"
          :bordered="bordered"
          @change="store.update(block.id, { style: $event })"
        />
      </details>
    </template>
    <template v-else
      ><h2>Letter</h2>
      <p class="muted mt-1.5 text-[12.5px]">
        Choose a block on the paper or in the outline to set how it looks and where it leads. What
        is set here holds for the whole letter; the rest comes from the
        <NuxtLink to="/settings/letterhead" class="link">letterhead</NuxtLink>.
      </p>
      <div
        v-if="letterheads?.others.length"
        class="mt-2.5 grid grid-cols-[92px_1fr] items-center gap-x-2.5 text-[12.5px]"
      >
        <label for="letterhead">Letterhead</label>
        <select
          id="letterhead"
          class="field field-sm"
          :value="store.mailing!.letterheadId ?? ''"
          @change="store.set({ letterheadId: text($event) ? Number(text($event)) : null })"
        >
          <option value="">The usual one</option>
          <option v-for="one in letterheads.others" :key="one.id" :value="one.id">
            {{ one.name }}
          </option>
        </select>
      </div>
      <StyleSettings class="mt-2.5" :levels="letterLevels" @change="store.setStyle($event)" />
    </template>
  </section>
</template>
