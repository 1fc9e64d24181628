<script setup lang="ts">
import type { Comparison, Condition, Family } from '~~/core/segments'

/** Which property of an event must be how; none to begin with. */
type Where = Extract<Condition, { kind: 'event' }>['where']
const props = defineProps<{ where: Where }>()
const emit = defineEmits<{ change: [where: Where] }>()
const family = computed<Family>(() => {
  const is = props.where?.test.is
  return is === 'number' || is === 'between'
    ? 'number'
    : is === 'yes' || is === 'no'
      ? 'yesno'
      : 'text'
})
function choose(kind: string) {
  if (!props.where) return
  const tests: Record<string, Comparison> = {
    text: { is: 'equal', text: '…' },
    number: { is: 'number', than: 'over', number: 0 },
    yesno: { is: 'yes' },
  }
  emit('change', { ...props.where, test: tests[kind]! })
}
function rename(property: string) {
  if (props.where && /^[\w .-]{1,60}$/.test(property)) emit('change', { ...props.where, property })
}
</script>

<template>
  <button
    v-if="!where"
    type="button"
    class="link small muted"
    @click="emit('change', { property: 'category', test: { is: 'equal', text: '…' } })"
  >
    where…
  </button>
  <template v-else>
    <span>where</span>
    <KeptInput
      class="chip w-28"
      aria-label="Property"
      :value="where.property"
      @taken="rename($event)"
    />
    <select
      class="chip"
      aria-label="Kind of value"
      :value="family"
      @change="choose(($event.target as HTMLSelectElement).value)"
    >
      <option value="text">text</option>
      <option value="number">number</option>
      <option value="yesno">yes or no</option>
    </select>
    <ValueChips
      :test="where.test"
      :family="family"
      :values="[]"
      @change="(test: Comparison) => emit('change', { property: where!.property, test })"
    />
    <button
      type="button"
      class="small muted px-1"
      aria-label="Any property"
      @click="emit('change', null)"
    >
      ×
    </button>
  </template>
</template>
