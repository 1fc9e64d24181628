<script setup lang="ts">
import {
  blocksOf,
  roomIn,
  sidesOf,
  type Block,
  type InheritedStyle,
  type RichText,
  type Row,
} from '~~/core/letters'
import { partsOf, type Part } from '~~/core/letters/parts'
import { paperRendering } from './paper-rendering'

/** A block as it goes out, edited in place. `lower`: how much lower than itself its picture ends, px. */
const props = defineProps<{
  block: Block
  row: Row
  chosen: boolean
  style: InheritedStyle
  lower: number
}>()
const emit = defineEmits<{ slash: [] }>()
const store = useMailing()
/** Until the mailing is there. */
const NO_FOOTER = { language: 'en', unsubscribe: 'Unsubscribe', yourPage: null }
const shapes = usePictureShapes()
const rendering = paperRendering(
  {
    document: () => store.letter!.document,
    letterhead: () => store.look,
    postalAddress: () => store.mailing?.postalAddress ?? '',
    listName: () => store.mailing?.list ?? 'this list',
    footer: () => store.mailing?.footer ?? NO_FOOTER,
  },
  () => ('by' in props.block && props.block.kind === 'picks' ? props.block.by : undefined),
)
const share = computed(
  () =>
    props.row.columns.find(({ blocks }) => blocks.some(({ id }) => id === props.block.id))!.share,
)
/** Most keys change nothing of them, only the words in their places: then they stay the same, and are not drawn again. */
const parts = computed<Part[]>((before) => {
  const now = partsOf(props.block, rendering, {
    side: sidesOf(props.row).each,
    lower: props.lower,
    width: roomIn(props.row, share.value, store.look.width),
    style: props.style,
    row: props.row,
    look: store.look,
  })
  return before && JSON.stringify(now) === JSON.stringify(before) ? before : now
})
/** What of the block is typed as plain words, by its name in it. */
const words = computed<Record<string, string>>(() => props.block as never)
const labels: Record<string, [label: string, prompt?: string]> = {
  by: ['Who said it', 'Who said it'],
  name: ['Product', 'What it is'],
  about: ['About it', 'Why one would want it'],
  price: ['Price', '£0'],
  was: ['Price before', '£0'],
  label: ['Words on the button'],
  code: ['Code', 'As it is typed'],
}
const textLabels: Partial<Record<Block['kind'], string>> = {
  heading: 'Heading',
  quote: 'Quote',
  footer: 'Footer',
}
/** What is empty and may be missing is there to be written while its block is chosen. */
const leavesOut = (name: string) => !props.chosen && words.value[name] === ''
function shaped(shape: number) {
  if ('src' in props.block) shapes[props.block.src] = shape
}
/** A cell's place is its row and column. */
const cellAt = (name: string) => name.split(' ').map(Number) as [number, number]
function setCell([row, column]: [number, number], value: string) {
  if (props.block.kind !== 'table') return
  store.update(props.block.id, {
    cells: props.block.cells.map((cells, r) =>
      r === row ? cells.map((cell, c) => (c === column ? value : cell)) : cells,
    ),
  })
}
/** With what one sees on it, where the library knows and nothing is said yet. */
function takePicture(src: string, alt: string) {
  const says = 'alt' in props.block && !props.block.alt && alt
  store.update(props.block.id, { src, ...(says ? { alt } : {}) })
}
const isEmptyContents = computed(
  () =>
    props.block.kind === 'contents' &&
    !blocksOf(store.letter!.document).some(({ kind }) => kind === 'heading'),
)
</script>

<template>
  <div class="paper-face" :style="{ '--accent': style.accent, fontFamily: style.textFont }">
    <div v-if="'src' in block && !block.src" :style="{ padding: `8px ${sidesOf(row).each}px` }">
      <PictureSlot @taken="takePicture" />
    </div>
    <p
      v-else-if="block.kind === 'feed' && !block.entries.length"
      class="bg-[#e4e8dc] px-7 py-4 text-[12.5px] text-ink-700"
      style="font-family: var(--font-ui)"
    >
      What is new on your site stands here. Set the address of its feed at the right.
    </p>
    <p
      v-else-if="block.kind === 'html' && !block.html.trim()"
      class="bg-[#e4e8dc] px-7 py-4 text-[12.5px] text-ink-700"
      style="font-family: var(--font-ui)"
    >
      Your own HTML stands here. It is written at the right.
    </p>
    <p
      v-else-if="block.kind === 'social' && !block.links.some(({ name }) => name)"
      class="bg-[#e4e8dc] px-7 py-4 text-[12.5px] text-ink-700"
      style="font-family: var(--font-ui)"
    >
      Where else you can be found stands here. Names and links are set at the right.
    </p>
    <PaperParts :parts="parts" :leaves-out="leavesOut" @shape="shaped">
      <template #place="{ name }">
        <TextInPlace
          v-if="name === 'text' && 'text' in block"
          :text="block.text"
          :label="textLabels[block.kind] ?? 'Text'"
          :single-line="block.kind === 'heading'"
          :chosen="chosen"
          @change="(text: RichText) => store.update(block.id, { text })"
          @slash="block.kind !== 'footer' && emit('slash')"
        />
        <OwnHtml
          v-else-if="name === 'html' && block.kind === 'html'"
          :html="block.html"
          :accent="style.accent"
        />
        <TypedInPlace
          v-else-if="block.kind === 'table'"
          :value="block.cells[cellAt(name)[0]]?.[cellAt(name)[1]] ?? ''"
          :label="`Row ${cellAt(name)[0] + 1}, column ${cellAt(name)[1] + 1}`"
          @change="setCell(cellAt(name), $event)"
        />
        <TypedInPlace
          v-else
          :value="words[name]!"
          :label="labels[name]![0]"
          :prompt="labels[name]![1]"
          :lines="name === 'code'"
          :beside="'was' in words && (name === 'price' || name === 'was')"
          :struck="name === 'was'"
          @change="store.update(block.id, { [name]: $event })"
        />
      </template>
    </PaperParts>
    <p
      v-if="isEmptyContents"
      class="px-7 pb-2 text-[12.5px] text-ink-700"
      style="font-family: var(--font-ui)"
    >
      The headings of the letter stand here.
    </p>
  </div>
</template>
