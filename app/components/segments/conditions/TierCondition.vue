<script setup lang="ts">
import type { ConditionOf } from '~~/core/segments'
import { tiers, type Tier } from '~~/core/standing'

const props = defineProps<{ condition: ConditionOf<'tier'> }>()
const emit = defineEmits<{ change: [condition: ConditionOf<'tier'>] }>()
const { set } = conditionChips<'tier'>(props, emit)
function setTier(tier: Tier, on: boolean) {
  const had = props.condition.of
  const of = tiers.filter((one) => (one === tier ? on : had.includes(one)))
  if (of.length) set({ of })
}
</script>

<template>
  <span class="chip chip-subject">Engagement is</span>
  <label v-for="tier in tiers" :key="tier" class="chip flex items-center gap-1">
    <input
      type="checkbox"
      :checked="condition.of.includes(tier)"
      @change="setTier(tier, ($event.target as HTMLInputElement).checked)"
    />{{ tier }}
  </label>
</template>
