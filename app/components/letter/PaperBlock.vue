<script setup lang="ts">
import { ArrowDown, ArrowUp, Copy, Trash2 } from '@lucide/vue'
import { inheritedStyle, type Block, type Row } from '~~/core/letters'

/** One block on the paper, with what can be done with it as a whole. `lower`: how much lower than itself its picture ends, px. */
const props = defineProps<{ block: Block; row: Row; index: number; lower: number }>()
const emit = defineEmits<{ slash: [] }>()
const store = useMailing()
const presence = usePresence()
/** Somebody else is writing here. */
const held = computed(() => presence.whoIsIn(props.block.id))
const here = computed(() => store.chosen === props.block.id)
const besides = computed(() => store.also.includes(props.block.id))
/** Shift chooses all between, Ctrl this one besides. */
function press(event: MouseEvent) {
  const how = event.shiftKey ? 'between' : event.ctrlKey || event.metaKey ? 'besides' : 'alone'
  if (how !== 'alone') event.preventDefault()
  store.choose(props.block.id, how)
}
const style = computed(() =>
  inheritedStyle(store.look, store.letterStyle, props.row.style, props.block.style),
)
const column = computed(() =>
  props.row.columns.findIndex(({ blocks }) => blocks.some(({ id }) => id === props.block.id)),
)
const at = computed(() =>
  props.row.columns[column.value]!.blocks.findIndex(({ id }) => id === props.block.id),
)
/** In the first of several columns the middle of the paper, where the line to insert on is pressed, is at the right. */
const beginsRow = computed(() => column.value === 0 && props.row.columns.length > 1)
/** A block alone in its row moves with the row, another one in its column. */
const alone = computed(() => props.row.columns.flatMap(({ blocks }) => blocks).length === 1)
const canMove = (by: number) =>
  alone.value
    ? props.index + by >= 0 && props.index + by < store.letter!.document.rows.length
    : at.value + by >= 0 && at.value + by < props.row.columns[column.value]!.blocks.length
function move(by: number) {
  if (alone.value) return store.move(props.index, props.index + by)
  const place = { rowId: props.row.id, column: column.value, at: at.value + by }
  store.moveTo(props.block.id, place)
}
/** Whoever has just inserted a block writes on in it. */
const body = ref<HTMLElement | null>(null)
onMounted(() => {
  if (store.inserted !== props.block.id) return
  store.inserted = null
  setTimeout(() => body.value?.querySelector<HTMLElement>('.paper-text, input, textarea')?.focus())
})
</script>

<template>
  <div
    class="relative"
    :class="
      here || besides
        ? 'outline-2 -outline-offset-2 outline-brass-500 outline-solid'
        : 'hover:outline-1 hover:-outline-offset-1 hover:outline-brass-300 hover:outline-solid'
    "
    :data-block="block.id"
    :data-kind="block.kind"
    @mousedown="press"
    @focusin="store.all.includes(block.id) || store.choose(block.id)"
  >
    <div
      v-if="here && !held"
      class="absolute -top-3.5 z-20 flex rounded border border-line bg-sheet"
      :class="beginsRow ? 'left-2' : 'right-2'"
      style="font-family: var(--font-ui)"
    >
      <button v-if="canMove(-1)" class="h-6 w-6 p-[5px]" aria-label="Move up" @click="move(-1)">
        <ArrowUp :size="13" />
      </button>
      <button v-if="canMove(1)" class="h-6 w-6 p-[5px]" aria-label="Move down" @click="move(1)">
        <ArrowDown :size="13" />
      </button>
      <template v-if="block.kind !== 'footer'">
        <button
          class="h-6 w-6 p-[5px]"
          aria-label="Duplicate"
          @click="alone ? store.duplicate(index) : store.copyBlocks([block.id])"
        >
          <Copy :size="13" />
        </button>
        <button
          class="h-6 w-6 p-[5px] text-bad-600"
          aria-label="Delete"
          @click="store.remove(block.id)"
        >
          <Trash2 :size="13" />
        </button>
      </template>
    </div>
    <p
      v-if="held"
      class="absolute -top-3.5 left-2 z-20 rounded border border-dashed border-brass-500 bg-brass-100 px-1.5 text-[11.5px] leading-5"
      style="font-family: var(--font-ui)"
    >
      {{ held }} is writing here
    </p>
    <div ref="body" :inert="!!held">
      <BlockFace
        :block="block"
        :row="row"
        :chosen="here"
        :style="style"
        :lower="lower"
        @slash="emit('slash')"
      />
    </div>
  </div>
</template>
