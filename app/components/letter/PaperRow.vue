<script setup lang="ts">
import { colorOfGround, percentOf, sidesOf, type Block, type Row } from '~~/core/letters'
import { evened } from '~~/core/letters/parts'

/** A row of the paper with the line above it where something can be inserted. `insertAt`: the open line in it, if one is. */
const props = defineProps<{ row: Row; index: number; insertAt: string | null }>()
const emit = defineEmits<{ open: [place: string | null] }>()
const store = useMailing()
const stamps = useStamps()
const shownWords = (part: Row | Block) => {
  if (!part.shownTo) return null
  if ('rest' in part.shownTo) return 'everyone else'
  const wanted = JSON.stringify(part.shownTo.rule)
  return (
    store.going?.rules.find(({ rule }) => JSON.stringify(rule) === wanted)?.words ?? 'some people'
  )
}
const hiddenWords = ({ hidden }: Row | Block) => (hidden ? `not on ${hidden}` : null)
const notes = (part: Row | Block) =>
  [shownWords(part), hiddenWords(part)].filter(Boolean).join(' · ')
function rowLook({ style = {} }: Row) {
  const ground = colorOfGround(store.look, style.ground)
  const { space, border, borderColor, backdrop, backdropAt, backdropFit } = style
  const px = space === undefined ? undefined : `${space}px`
  return {
    backgroundColor: ground,
    paddingTop: px,
    paddingBottom: px,
    border: border ? `${border}px solid ${borderColor ?? '#dfe3d9'}` : undefined,
    ...(backdrop
      ? {
          backgroundImage: `url("${backdrop}")`,
          backgroundRepeat: 'no-repeat',
          backgroundPosition: backdropAt ?? 'center center',
          backgroundSize: backdropFit ?? 'cover',
        }
      : {}),
  }
}
function stampWords(row: Row) {
  const stamp = stamps.stampOf(row)
  if (!stamp) return ''
  return `stamp: ${stamp.name}${stamps.differs(row) ? ', changed here only' : ''}`
}
const shapes = usePictureShapes()
const lower = computed(() => evened(props.row, store.look.width, shapes))
const isEmpty = computed(() => props.row.columns.every(({ blocks }) => !blocks.length))
const rowNotes = (row: Row) => [stampWords(row), notes(row)].filter(Boolean).join(' · ')
</script>

<template>
  <InsertLine
    :open="insertAt === String(index)"
    @open="emit('open', String(index))"
    @close="(store.slashIn(null), emit('open', null))"
    @choose="(kind) => (store.insert(index, kind), emit('open', null))"
    @stamp="(stamp) => (store.insertStamp(index, stamp), emit('open', null))"
  />
  <div
    class="relative isolate"
    :style="rowLook(row)"
    :class="rowNotes(row) && 'shadow-[inset_3px_0_0_var(--canvas-400)]'"
  >
    <p v-if="rowNotes(row)" class="paper-note left-3">{{ rowNotes(row) }}</p>
    <div class="flex" :style="{ padding: `0 ${sidesOf(row).around}px` }">
      <div
        v-for="(column, c) in row.columns"
        :key="c"
        class="relative min-w-0 flex-none"
        :style="{ width: `${percentOf(column.share)}%` }"
      >
        <div v-for="block in column.blocks" :key="block.id" class="relative">
          <p v-if="notes(block)" class="paper-note left-7">{{ notes(block) }}</p>
          <PaperBlock
            :block="block"
            :row="row"
            :index="index"
            :lower="lower.get(block.id) ?? 0"
            @slash="
              (store.slashIn(block.id),
              emit('open', row.columns.length > 1 ? `${row.id}:${c}` : String(index + 1)))
            "
          />
        </div>
        <template v-if="row.columns.length > 1">
          <p
            v-if="!column.blocks.length"
            class="inset-x-0 top-0 py-6 text-center text-[13px] text-ink-500"
            :class="!isEmpty && 'absolute'"
            style="font-family: var(--font-ui)"
          >
            An empty column
          </p>
          <InsertLine
            in-column
            :open="insertAt === `${row.id}:${c}`"
            :label="`Insert a block into column ${c + 1}`"
            @open="emit('open', `${row.id}:${c}`)"
            @close="emit('open', null)"
            @choose="
              (kind) => (
                store.insert({ rowId: row.id, column: c, at: column.blocks.length }, kind),
                emit('open', null)
              )
            "
          />
        </template>
      </div>
    </div>
  </div>
</template>
