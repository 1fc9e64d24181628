<script setup lang="ts">
import { VueDraggable } from 'vue-draggable-plus'
import {
  AlignLeft,
  Columns2,
  Clapperboard,
  CodeXml,
  Heading as HeadingIcon,
  Image,
  List,
  MessageSquare,
  Minus,
  MousePointerClick,
  MoveVertical,
  PanelBottom,
  Quote,
  Rss,
  Share2,
  SquareCode,
  Table,
  Tag,
  Tags,
} from '@lucide/vue'
import {
  blockNames,
  findBlock,
  isEmptyText,
  plainInline,
  readFillIn,
  type Block,
  type Row,
} from '~~/core/letters'

/** A row of the outline with its blocks; those that stay as they are are not drawn again as one writes. */
const props = defineProps<{ row: Row }>()
const store = useMailing()
const icons = {
  heading: HeadingIcon,
  text: AlignLeft,
  picture: Image,
  film: Clapperboard,
  button: MousePointerClick,
  divider: Minus,
  space: MoveVertical,
  quote: Quote,
  table: Table,
  social: Share2,
  product: Tag,
  picks: Tags,
  feed: Rss,
  contents: List,
  code: SquareCode,
  html: CodeXml,
  footer: PanelBottom,
}
function setBlocks(column: number, dragged: Block[]) {
  const blocks = dragged.map((block) => findBlock(store.letter!.document, block.id) ?? block)
  store.setRows(
    store.letter!.document.rows.map((row) =>
      row.id === props.row.id
        ? {
            ...row,
            columns: row.columns.map((one, c) => (c === column ? { ...one, blocks } : one)),
          }
        : row,
    ),
  )
}
/** Chooses a block, and brings it into sight on the paper. */
function choose({ shiftKey, ctrlKey, metaKey }: MouseEvent, id: string) {
  store.choose(id, shiftKey ? 'between' : ctrlKey || metaKey ? 'besides' : 'alone')
  document
    .querySelector(`[data-block="${CSS.escape(id)}"]`)
    ?.scrollIntoView({ block: 'nearest', behavior: 'smooth' })
}
const marked = (id: string) => store.marks?.find((mark) => mark.blockId === id)?.level
const said = (id: string) =>
  store.comments.filter(({ blockId, resolved }) => blockId === id && !resolved).length
const columnWords = ['', '', 'Two columns', 'Three columns', 'Four columns']
/** How many a part that is not for everybody is shown to. */
function shownTo(part: Row | Block) {
  if (!part.shownTo) return null
  if ('rest' in part.shownTo) return 'else'
  const wanted = JSON.stringify(part.shownTo.rule)
  const known = store.going?.rules.find(({ rule }) => JSON.stringify(rule) === wanted)
  return known ? count(known.people) : 'some'
}
function nameOf(block: Block) {
  const shown = (text: string) => (text.length > 24 ? `${text.slice(0, 23)}…` : text)
  const named = (more: string) => `${blockNames[block.kind]}${more ? `: ${shown(more)}` : ''}`
  switch (block.kind) {
    case 'heading':
    case 'text':
    case 'quote':
      return isEmptyText(block.text)
        ? `Empty ${block.kind}`
        : shown(
            plainInline(block.text, (e) =>
              readFillIn(e).path.split('.').at(-1)!.replaceAll('_', ' '),
            ),
          )
    case 'picture':
    case 'film':
      return named(block.alt)
    case 'button':
      return named(block.label)
    case 'product':
      return named(block.name)
    default:
      return blockNames[block.kind]
  }
}
</script>

<template>
  <div class="outline-row relative">
    <div v-if="row.columns.length > 1" class="flex items-center gap-2 px-3 py-[5px]">
      <Columns2 :size="14" class="flex-none text-ink-500" aria-hidden="true" /><span
        class="truncate"
        >{{ columnWords[row.columns.length] }}</span
      ><span v-if="shownTo(row)" class="tag ml-auto">{{ shownTo(row) }}</span>
    </div>
    <VueDraggable
      v-for="(column, c) in row.columns"
      :key="c"
      :model-value="column.blocks"
      :animation="120"
      :disabled="!store.canChange || row.columns.length === 1"
      :group="row.columns.length > 1 ? 'blocks' : undefined"
      tag="div"
      :class="row.columns.length > 1 && 'ml-4 min-h-2 border-l border-line-soft'"
      @update:model-value="(blocks: Block[]) => setBlocks(c, blocks)"
    >
      <button
        v-for="block in column.blocks"
        :key="block.id"
        class="flex w-full items-center gap-2 px-3 py-[5px] text-left"
        :class="
          store.all.includes(block.id)
            ? 'bg-brass-100 shadow-[inset_3px_0_0_var(--brass-500)]'
            : 'hover:bg-canvas-50'
        "
        :aria-current="store.chosen === block.id ? 'true' : undefined"
        @click="choose($event, block.id)"
      >
        <component
          :is="icons[block.kind]"
          :size="14"
          class="flex-none text-ink-500"
          aria-hidden="true"
        /><span class="truncate">{{ nameOf(block) }}</span
        ><span
          v-if="shownTo(row.columns.length === 1 && row.shownTo ? row : block)"
          class="tag ml-auto"
          >{{ shownTo(row.columns.length === 1 && row.shownTo ? row : block) }}</span
        ><span
          v-if="said(block.id)"
          class="ml-auto flex flex-none items-center gap-0.5 text-brass-700"
          ><MessageSquare :size="13" aria-hidden="true" />{{ said(block.id)
          }}<span class="sr-only"> open comments</span></span
        ><MarkDot v-if="marked(block.id)" :level="marked(block.id)!" class="!mt-0 ml-auto" />
      </button>
    </VueDraggable>
  </div>
</template>
