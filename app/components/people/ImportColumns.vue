<script setup lang="ts">
import {
  fieldKeyFor,
  fieldKinds,
  type ColumnPlan,
  type ColumnTarget,
  type Field,
  type FieldKind,
} from '~~/core/people'

/** The columns of a file with three real values each, and what becomes of them. */
const props = defineProps<{
  plans: ColumnPlan[]
  fields: Field[]
  lists: { id: number; name: string }[]
}>()
const emit = defineEmits<{ change: [column: number, target: ColumnTarget] }>()
const asText = (target: ColumnTarget) =>
  target.to === 'field'
    ? `field:${target.key}`
    : target.to === 'list'
      ? `list:${target.listId}`
      : target.to === 'new-field'
        ? `new:${target.kind}`
        : target.to
function choose(plan: ColumnPlan, text: string) {
  const [to, what] = text.split(':') as [string, string | undefined]
  const taken = new Set([
    ...props.fields.map((field) => field.key),
    ...props.plans.flatMap((other) =>
      other !== plan && other.target.to === 'new-field' ? [other.target.key] : [],
    ),
  ])
  const target: ColumnTarget =
    to === 'field'
      ? { to, key: what! }
      : to === 'list'
        ? { to, listId: Number(what) }
        : to === 'new'
          ? {
              to: 'new-field',
              kind: what as FieldKind,
              name: plan.header,
              key: fieldKeyFor(plan.header, taken),
            }
          : ({ to } as ColumnTarget)
  emit('change', plan.column, target)
}
function reading(plan: ColumnPlan) {
  if (plan.target.to === 'skip' || plan.target.to === 'address') return ''
  const order = { dmy: 'day first', mdy: 'month first', ymd: 'year first' }
  return [
    plan.dateOrder && order[plan.dateOrder],
    plan.separator && `several, apart by “${plan.separator}”`,
    plan.decimal === ',' && 'decimal comma',
  ]
    .filter(Boolean)
    .join(', ')
}
</script>

<template>
  <table class="grid-table">
    <thead>
      <tr>
        <th>Column</th>
        <th>In the file</th>
        <th class="w-[250px]">Becomes</th>
        <th class="w-[170px]">Read as</th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="plan in plans"
        :key="plan.column"
        :class="plan.target.to === 'skip' && 'text-ink-500'"
      >
        <td class="font-[560]">{{ plan.header }}</td>
        <td class="small max-w-[300px]">
          <span
            v-for="sample in plan.samples"
            :key="sample"
            class="tag mr-1 mb-0.5 inline-block max-w-[180px] truncate align-bottom"
            >{{ sample }}</span><span v-if="!plan.samples.length" class="muted">empty</span>
        </td>
        <td>
          <select
            class="field field-sm"
            :aria-label="`${plan.header} becomes`"
            :value="asText(plan.target)"
            @change="choose(plan, ($event.target as HTMLSelectElement).value)"
          >
            <option value="address">Address</option>
            <option value="whole-name">Whole name</option>
            <optgroup label="Field">
              <option v-for="field in fields" :key="field.key" :value="`field:${field.key}`">
                {{ field.name }}
              </option>
            </optgroup>
            <optgroup label="New field">
              <option v-for="kind in fieldKinds" :key="kind" :value="`new:${kind}`">
                New: {{ plan.header }}, {{ kindWords[kind] }}
              </option>
            </optgroup>
            <option value="tags">Tags</option>
            <optgroup label="Yes or no to a list">
              <option v-for="list in lists" :key="list.id" :value="`list:${list.id}`">
                {{ list.name }}
              </option>
            </optgroup>
            <option value="skip">Skip this column</option>
          </select>
        </td>
        <td class="small muted">{{ reading(plan) }}</td>
      </tr>
    </tbody>
  </table>
</template>
