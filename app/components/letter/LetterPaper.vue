<script setup lang="ts">
/** The paper: the letter as it will look, edited in place. */
const store = useMailing()
const session = useSession()
const look = computed(() => session.account!.letterhead)
/** The place whose insert menu is open by `/`. */
const insertAt = ref<number | null>(null)
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
      class="w-[600px] max-w-full border border-line py-2"
      :style="{ background: look.paper, color: look.ink, fontFamily: look.textFont }"
    >
      <template v-for="(row, index) in store.letter!.document.rows" :key="row.id">
        <InsertLine
          :open="insertAt === index"
          @open="insertAt = index"
          @close="insertAt = null"
          @choose="(kind) => (store.insert(index, kind), (insertAt = null))"
        />
        <div
          class="grid"
          :style="{
            gridTemplateColumns: row.columns.map((column) => `${column.share}fr`).join(' '),
          }"
        >
          <div v-for="(column, c) in row.columns" :key="c">
            <PaperBlock
              v-for="block in column.blocks"
              :key="block.id"
              :block="block"
              :index="index"
              @insert-after="insertAt = index + 1"
            />
          </div>
        </div>
      </template>
    </div>
    <p class="muted small mt-3">
      Type <kbd class="tag">/</kbd> in an empty text, or use the line between blocks, to insert.
    </p>
  </div>
</template>
