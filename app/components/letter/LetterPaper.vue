<script setup lang="ts">
import { blocksOf, SIDE, type Row } from '~~/core/letters'

/** The paper: the letter as it will look, edited in place. */
const store = useMailing()
const look = computed(() => store.look)
/** The line whose insert menu is open: a row's number, or a row's id and a column. */
const insertAt = ref<string | null>(null)
/** Nothing stands in the letter but its footer. */
const isEmpty = computed(() =>
  blocksOf(store.letter!.document).every(({ kind }) => kind === 'footer'),
)
const open = (place: string | null) => (insertAt.value = place)
/** Rows know only of a menu in themselves, so that those that stay as they are are not drawn again. */
function openIn(row: Row, index: number) {
  const at = insertAt.value
  return at === String(index) || at?.startsWith(`${row.id}:`) ? at : null
}
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
      class="paper max-w-full flex-none pt-2.5 outline outline-line"
      :style="{ background: look.paper, width: `${look.width}px` }"
    >
      <img
        v-if="look.logo"
        :src="look.logo"
        alt=""
        class="mt-4.5 mb-1"
        :style="{
          width: `${look.logoWidth}px`,
          marginLeft: look.logoAlign === 'left' ? `${SIDE}px` : 'auto',
          marginRight: look.logoAlign === 'right' ? `${SIDE}px` : 'auto',
        }"
      />
      <div
        v-if="isEmpty && insertAt === null && store.canChange"
        class="mx-7 my-4 rounded-lg border-2 border-dashed border-brass-500 bg-brass-100/40 px-6 py-10 text-center"
        style="font-family: var(--font-ui)"
      >
        <p class="font-semibold text-ink-900">Here your letter begins</p>
        <p class="muted mt-1 text-[13px]">
          Write a few words first, or put in a heading, a picture, a button.
        </p>
        <div class="mt-4 flex justify-center gap-2">
          <button class="btn btn-go" @click="store.insert(0, 'text')">Write</button>
          <button class="btn" @click="open('0')">Insert…</button>
        </div>
      </div>
      <PaperRow
        v-for="(row, index) in store.letter!.document.rows"
        :key="row.id"
        :row="row"
        :index="index"
        :insert-at="openIn(row, index)"
        @open="open"
      />
    </div>
    <p class="muted small mt-3">
      Type <kbd class="tag">/</kbd> in an empty text, or use the line between blocks, to insert.
    </p>
  </div>
</template>
