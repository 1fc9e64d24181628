<script setup lang="ts">
import type { Space } from '~~/core/letters'

/** How high an empty space is. */
defineProps<{ block: Space }>()
const store = useMailing()
</script>

<template>
  <label for="height">Height</label>
  <span class="flex items-center gap-2">
    <KeptInput
      id="height"
      class="field field-sm w-20"
      type="number"
      min="4"
      max="200"
      :value="block.height"
      @taken="store.update(block.id, { height: Number($event) || 24 })"
    />px
  </span>
</template>
