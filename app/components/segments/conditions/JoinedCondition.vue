<script setup lang="ts">
import type { ConditionOf } from '~~/core/segments'

const props = defineProps<{ condition: ConditionOf<'joined'> }>()
const emit = defineEmits<{ change: [condition: ConditionOf<'joined'>] }>()
const { set } = conditionChips<'joined'>(props, emit)
</script>

<template>
  <span class="chip chip-subject">Joined</span>
  <TimeChips :when="condition.when" @change="(when) => set({ when })" />
</template>
