<script setup lang="ts">
import type { Explanation } from '~~/core/segments'

/** Each part of a rule with its verdict and the fact behind it. */
defineProps<{ explanation: Explanation; depth: number }>()
const groups = { all: 'All of these', any: 'Any of these', none: 'None of these' }
</script>

<template>
  <div :class="depth > 0 && 'ml-2 border-l-2 border-dashed border-canvas-300 pl-3'">
    <div class="flex items-baseline gap-2 py-1">
      <span
        class="w-8 flex-none font-semibold"
        :class="explanation.holds ? 'text-good-600' : 'text-bad-600'"
        >{{ explanation.holds ? 'yes' : 'no' }}</span
      >
      <span class="min-w-0">
        <span>{{ explanation.group ? groups[explanation.group] : explanation.words }}</span>
        <span v-if="explanation.fact" class="muted block">{{ explanation.fact }}</span>
      </span>
    </div>
    <WhyParts
      v-for="(part, i) in explanation.parts"
      :key="i"
      :explanation="part"
      :depth="depth + 1"
    />
  </div>
</template>
