<script setup lang="ts">
import type { useLabelView } from '~/composables/labels'

/**
 * Narrows a list to a label, or puts its rows under their labels. Nothing stands here where there are no labels; where
 * they can't be asked for, it says so.
 */
const props = defineProps<{ view: ReturnType<typeof useLabelView>; noGroups?: boolean }>()
const options = computed(() =>
  (props.view.labels ?? []).filter(
    ({ id, on }) => on[props.view.kind].length > 0 || id === props.view.label?.id,
  ),
)
</script>

<template>
  <p v-if="view.problem && !view.labels" class="fault small" role="alert">{{ view.problem }}</p>
  <div v-else-if="options.length" class="flex items-center gap-1.5">
    <select
      class="field field-sm min-w-0 flex-1"
      aria-label="Label"
      :value="view.label?.id ?? ''"
      @change="view.show({ label: Number(($event.target as HTMLSelectElement).value) || null })"
    >
      <option value="">All labels</option>
      <option v-for="one in options" :key="one.id" :value="one.id">
        {{ one.name }} ({{ count(one.on[view.kind].length) }})
      </option>
    </select>
    <button
      v-if="!noGroups"
      type="button"
      class="min-h-7 flex-none rounded border border-line px-2 text-[12.5px]"
      :class="view.choice.grouped ? 'bg-canvas-200 font-semibold' : 'bg-sheet hover:bg-canvas-50'"
      :aria-pressed="view.choice.grouped"
      @click="view.show({ grouped: !view.choice.grouped })"
    >
      Group
    </button>
  </div>
</template>
