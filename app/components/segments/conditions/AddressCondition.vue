<script setup lang="ts">
import type { Comparison, ConditionOf } from '~~/core/segments'

const props = defineProps<{ condition: ConditionOf<'address'> }>()
const emit = defineEmits<{ change: [condition: ConditionOf<'address'>] }>()
const { set, valueOf, vocabulary } = conditionChips<'address'>(props, emit)
const domains = computed(() =>
  vocabulary.value.domains.map(({ domain, n }) => ({ value: domain, n })),
)
</script>

<template>
  <select
    class="chip chip-subject"
    aria-label="Part of the address"
    :value="condition.part"
    @change="set({ part: valueOf($event) })"
  >
    <option value="whole">Address</option>
    <option value="domain">Domain</option>
  </select>
  <ValueChips
    :test="condition.test"
    family="text"
    :values="condition.part === 'domain' ? domains : []"
    @change="(test: Comparison) => ('text' in test || 'texts' in test) && set({ test })"
  />
</template>
