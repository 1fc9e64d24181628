<script setup lang="ts">
import { VueDraggable } from 'vue-draggable-plus'
import type { Row } from '~~/core/letters'

/** The letter's structure: drag to reorder, press to choose. */
const store = useMailing()
const shown = useCalm(() => store.letter!.document.rows)
const rows = computed({
  get: () => shown.value,
  set: (next: Row[]) => {
    const asWritten = new Map(store.letter!.document.rows.map((row) => [row.id, row]))
    store.setRows(next.map((row) => asWritten.get(row.id) ?? row))
  },
})
</script>

<template>
  <!-- Isolated, and its rows placed, so that the browser keeps it as it is painted while one writes. -->
  <nav
    class="isolate min-h-0 overflow-x-hidden overflow-y-auto border-r border-line bg-sheet py-2.5 text-[12.5px]"
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
      <OutlineRow v-for="row in rows" :key="row.id" :row="row" />
    </VueDraggable>
  </nav>
</template>
