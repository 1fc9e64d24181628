<script setup lang="ts">
import type { Block, Row } from '~~/core/letters'

/** The paper: the letter as it will look, edited in place. */
const store = useMailing()
const stamps = useStamps()
const look = computed(() => store.look)
/** The line whose insert menu is open: a row's number, or a row's id and a column. */
const insertAt = ref<string | null>(null)
const SIDE = 28
const BETWEEN = 10
function sides(row: Row, column: number) {
  const last = row.columns.length - 1
  const left = column === 0 ? SIDE : BETWEEN
  const right = column === last ? SIDE : BETWEEN
  return { padding: `0 ${right}px 0 ${left}px` }
}
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
  <div class="flex flex-col items-center py-4" @click.self="store.chosen = null">
    <div class="mb-3 w-[600px] max-w-full">
      <div class="sheet grid grid-cols-[90px_1fr] items-center">
        <label for="subject" class="muted small pl-3">Subject</label>
        <input
          id="subject"
          class="h-9 border-0 bg-transparent px-2 font-semibold"
          :value="store.letter!.subject"
          placeholder="What is inside, in a few words"
          maxlength="500"
          @focus="store.chosen = null"
          @input="store.setSubject(($event.target as HTMLInputElement).value)"
        />
        <label for="preview-text" class="muted small border-t border-line-soft py-2 pl-3"
          >Preview text</label
        >
        <input
          id="preview-text"
          class="h-9 border-0 border-t border-line-soft bg-transparent px-2"
          :value="store.letter!.previewText"
          placeholder="The line that stands after the subject in the inbox"
          maxlength="500"
          @input="store.setPreviewText(($event.target as HTMLInputElement).value)"
        />
      </div>
    </div>
    <div
      class="max-w-full border border-line py-2"
      :style="{ background: look.paper, width: `${look.width}px` }"
    >
      <img
        v-if="look.logo"
        :src="look.logo"
        alt=""
        class="mt-4 mb-1"
        :style="{
          width: `${look.logoWidth}px`,
          marginLeft: look.logoAlign === 'left' ? `${SIDE}px` : 'auto',
          marginRight: look.logoAlign === 'right' ? `${SIDE}px` : 'auto',
        }"
      />
      <template v-for="(row, index) in store.letter!.document.rows" :key="row.id">
        <InsertLine
          :open="insertAt === String(index)"
          @open="insertAt = String(index)"
          @close="insertAt = null"
          @choose="(kind) => (store.insert(index, kind), (insertAt = null))"
          @stamp="(stamp) => (store.insertStamp(index, stamp), (insertAt = null))"
        />
        <div
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
              gridTemplateColumns: row.columns
                .map(({ share }) => `minmax(0, ${share}fr)`)
                .join(' '),
            }"
          >
            <div v-for="(column, c) in row.columns" :key="c" :style="sides(row, c)">
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
                  @slash="insertAt = row.columns.length > 1 ? `${row.id}:${c}` : String(index + 1)"
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
                    @open="insertAt = `${row.id}:${c}`"
                    @close="insertAt = null"
                    @choose="
                      (kind) => (
                        store.insert({ rowId: row.id, column: c, at: column.blocks.length }, kind),
                        (insertAt = null)
                      )
                    "
                  />
                </div>
              </template>
            </div>
          </div>
        </div>
      </template>
    </div>
    <p class="muted small mt-3">
      Type <kbd class="tag">/</kbd> in an empty text, or use the line between blocks, to insert.
    </p>
  </div>
</template>
