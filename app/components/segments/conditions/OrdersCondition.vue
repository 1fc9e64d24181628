<script setup lang="ts">
import type { ConditionOf } from '~~/core/segments'

const props = defineProps<{ condition: ConditionOf<'orders'> }>()
const emit = defineEmits<{ change: [condition: ConditionOf<'orders'>] }>()
const { set, valueOf, vocabulary } = conditionChips<'orders'>(props, emit)
</script>

<template>
  <select
    class="chip chip-subject"
    aria-label="Bought or spent"
    :value="condition.what"
    @change="
      set({
        what: valueOf($event),
        test: { is: 'number', than: 'over', number: valueOf($event) === 'money' ? 5_000 : 0 },
      })
    "
  >
    <option value="count">Bought</option>
    <option value="money">Spent</option>
  </select>
  <NumberChips
    :test="condition.test"
    :digits="condition.what === 'money' ? 2 : 0"
    @change="(test) => set({ test })"
  />
  <span>{{ condition.what === 'count' ? 'times' : vocabulary.currency }}</span>
  <select
    v-if="vocabulary.products.length"
    class="chip"
    aria-label="Of what"
    :value="
      condition.product
        ? `p${condition.product}`
        : condition.category
          ? `c${condition.category}`
          : ''
    "
    @change="
      set({
        product: valueOf($event).startsWith('p') ? valueOf($event).slice(1) : null,
        category: valueOf($event).startsWith('c') ? valueOf($event).slice(1) : null,
      })
    "
  >
    <option value="">of anything</option>
    <optgroup label="Category">
      <option v-for="one in vocabulary.categories" :key="one" :value="`c${one}`">
        in {{ one }}
      </option>
    </optgroup>
    <optgroup label="Product">
      <option v-for="one in vocabulary.products" :key="one" :value="`p${one}`">
        {{ one }}
      </option>
    </optgroup>
  </select>
  <WithinChip :days="condition.withinDays" @change="(withinDays) => set({ withinDays })" />
</template>
