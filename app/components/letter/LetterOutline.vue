<script setup lang="ts">
import { VueDraggable } from 'vue-draggable-plus'
import {
  AlignLeft,
  Heading as HeadingIcon,
  Image,
  Minus,
  MousePointerClick,
  MoveVertical,
  PanelBottom,
} from '@lucide/vue'
import { isEmptyText, plainInline, readFillIn, type Block, type Row } from '~~/core/letters'

/** The letter's structure: drag to reorder, press to choose. */
const store = useMailing()
const icons = {
  heading: HeadingIcon,
  text: AlignLeft,
  picture: Image,
  button: MousePointerClick,
  divider: Minus,
  space: MoveVertical,
  footer: PanelBottom,
}
const rows = computed({
  get: () => store.letter!.document.rows,
  set: (next: Row[]) => {
    const now = store.letter!.document.rows
    const from = now.findIndex((row, i) => row.id !== next[i]?.id)
    if (from < 0) return
    // One row moved: either the first that differs went down, or another came up to its place.
    const moved = next[from]!.id === now[from + 1]?.id ? now[from]!.id : next[from]!.id
    store.move(
      now.findIndex((row) => row.id === moved),
      next.findIndex((row) => row.id === moved),
    )
  },
})
const blocksOfRow = (row: Row) => row.columns.flatMap((column) => column.blocks)
const marked = (id: string) => store.marks?.find((mark) => mark.blockId === id)?.level
function nameOf(block: Block) {
  const shown = (text: string) => (text.length > 24 ? `${text.slice(0, 23)}…` : text)
  switch (block.kind) {
    case 'heading':
    case 'text':
      return isEmptyText(block.text)
        ? `Empty ${block.kind}`
        : shown(
            plainInline(block.text, (e) =>
              readFillIn(e).path.split('.').at(-1)!.replaceAll('_', ' '),
            ),
          )
    case 'picture':
      return `Picture${block.alt ? `: ${shown(block.alt)}` : ''}`
    case 'button':
      return `Button: ${shown(block.label)}`
    default:
      return block.kind.charAt(0).toUpperCase() + block.kind.slice(1)
  }
}
</script>

<template>
  <nav
    class="min-h-0 overflow-auto border-r border-line bg-sheet py-2.5 text-[12.5px]"
    aria-label="Outline"
  >
    <div class="px-3 pb-1.5"><b>Outline</b></div>
    <VueDraggable
      v-model="rows"
      :animation="120"
      :disabled="!store.canChange"
      handle=".outline-row"
      tag="div"
    >
      <div v-for="row in rows" :key="row.id" class="outline-row">
        <button
          v-for="block in blocksOfRow(row)"
          :key="block.id"
          class="flex w-full items-center gap-2 px-3 py-[5px] text-left"
          :class="
            store.chosen === block.id
              ? 'bg-brass-100 shadow-[inset_3px_0_0_var(--brass-500)]'
              : 'hover:bg-canvas-50'
          "
          :aria-current="store.chosen === block.id ? 'true' : undefined"
          @click="store.chosen = block.id"
        >
          <component
            :is="icons[block.kind]"
            :size="14"
            class="flex-none text-ink-500"
            aria-hidden="true"
          /><span class="truncate">{{ nameOf(block) }}</span
          ><MarkDot v-if="marked(block.id)" :level="marked(block.id)!" class="!mt-0 ml-auto" />
        </button>
      </div>
    </VueDraggable>
  </nav>
</template>
