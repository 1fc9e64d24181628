<script setup lang="ts">
import { VueDraggable } from 'vue-draggable-plus'
import type { Row } from '~~/core/letters'

/** The letter's structure: drag to reorder, press to choose. */
const store = useMailing()
const rows = computed({
  get: () => store.letter!.document.rows,
  set: (next: Row[]) => store.setRows(next),
})
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
      <OutlineRow v-for="row in rows" :key="row.id" :row="row" />
    </VueDraggable>
  </nav>
</template>
