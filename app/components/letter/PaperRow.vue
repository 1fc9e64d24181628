<script setup lang="ts">
import { sidesOf, type Block, type Row } from '~~/core/letters'

/** A row of the paper with the line above it where something can be inserted. `insertAt`: the open line in it, if one is. */
defineProps<{ row: Row; index: number; insertAt: string | null }>()
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
  const { ground, space, border, borderColor, backdrop, backdropAt, backdropFit } = style
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
    class="isolate"
    :style="rowLook(row)"
    :class="rowNotes(row) && 'shadow-[inset_3px_0_0_var(--canvas-400)]'"
  >
    <p
      v-if="rowNotes(row)"
      class="truncate px-7 pt-1 pb-1.5 text-[11.5px] text-canvas-700"
      style="font-family: var(--font-ui)"
    >
      {{ rowNotes(row) }}
    </p>
    <div
      class="grid"
      :style="{
        padding: `0 ${sidesOf(row).around}px`,
        gridTemplateColumns: row.columns.map(({ share }) => `minmax(0, ${share}fr)`).join(' '),
      }"
    >
      <div
        v-for="(column, c) in row.columns"
        :key="c"
        :style="{ padding: `0 ${sidesOf(row).each}px` }"
      >
        <div v-for="block in column.blocks" :key="block.id">
          <p
            v-if="notes(block)"
            class="truncate text-[11.5px] text-canvas-700"
            style="font-family: var(--font-ui)"
          >
            {{ notes(block) }}
          </p>
          <PaperBlock
            :block="block"
            :row="row"
            :index="index"
            @slash="
              (store.slashIn(block.id),
              emit('open', row.columns.length > 1 ? `${row.id}:${c}` : String(index + 1)))
            "
          />
        </div>
        <template v-if="row.columns.length > 1">
          <p
            v-if="!column.blocks.length"
            class="py-6 text-center text-[13px] text-ink-500"
            style="font-family: var(--font-ui)"
          >
            An empty column
          </p>
          <div class="pb-3">
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
          </div>
        </template>
      </div>
    </div>
  </div>
</template>
