<script setup lang="ts">
import {
  fieldKeyFor,
  fieldKinds,
  showCell,
  type ColumnPlan,
  type ColumnTarget,
  type Field,
  type FieldKind,
} from '~~/core/people'

/** The columns of a file with three real values each, what becomes of them, and how each of these values would be read. */
const props = defineProps<{
  plans: ColumnPlan[]
  fields: Field[]
  lists: { id: number; name: string }[]
  kinds: ReadonlyMap<string, FieldKind>
}>()
const emit = defineEmits<{
  target: [column: number, target: ColumnTarget]
  change: [column: number, more: Partial<ColumnPlan>]
}>()
const asText = (target: ColumnTarget) =>
  target.to === 'field'
    ? `field:${target.key}`
    : target.to === 'list'
      ? `list:${target.listId}`
      : target.to === 'new-field'
        ? `new:${target.kind}`
        : target.to
const takenBeside = (plan: ColumnPlan) =>
  new Set([
    ...props.fields.map((field) => field.key),
    ...props.plans.flatMap((other) =>
      other.column !== plan.column && other.target.to === 'new-field' ? [other.target.key] : [],
    ),
  ])
const newField = (plan: ColumnPlan, name: string, kind: FieldKind): ColumnTarget => ({
  to: 'new-field',
  kind,
  name,
  key: fieldKeyFor(name, takenBeside(plan)),
})
function choose(plan: ColumnPlan, text: string) {
  const [to, what] = text.split(':') as [string, string | undefined]
  const name = plan.target.to === 'new-field' ? plan.target.name : plan.header
  const target: ColumnTarget =
    to === 'field'
      ? { to, key: what! }
      : to === 'list'
        ? { to, listId: Number(what) }
        : to === 'new'
          ? newField(plan, name, what as FieldKind)
          : ({ to } as ColumnTarget)
  emit('target', plan.column, target)
}
function rename(plan: ColumnPlan, typed: string) {
  const name = typed.trim().slice(0, 60)
  if (plan.target.to !== 'new-field' || name === '') return
  emit('change', plan.column, { target: newField(plan, name, plan.target.kind) })
}
const shown = (plan: ColumnPlan) =>
  plan.samples.map((sample) => ({ sample, becomes: showCell(plan, sample, props.kinds) }))
</script>

<template>
  <table class="grid-table">
    <thead>
      <tr>
        <th class="w-[150px]">Column</th>
        <th>In the file, and what it becomes</th>
        <th class="w-[230px]">Becomes</th>
        <th class="w-[190px]">Read as</th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="plan in plans"
        :key="plan.column"
        class="align-top"
        :class="plan.target.to === 'skip' && 'text-ink-500'"
      >
        <td class="font-[560]">{{ plan.header }}</td>
        <td class="small">
          <div
            v-for="{ sample, becomes } in shown(plan)"
            :key="sample"
            class="grid grid-cols-2 gap-3"
          >
            <span class="truncate" :title="sample">{{ sample }}</span>
            <span
              v-if="becomes"
              class="truncate"
              :class="becomes.problem ? 'text-bad-600' : 'muted'"
              :title="becomes.text"
              >{{ becomes.text }}</span
            >
          </div>
          <span v-if="!plan.samples.length" class="muted">empty</span>
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
                New field, {{ kindWords[kind] }}
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
          <input
            v-if="plan.target.to === 'new-field'"
            class="field field-sm mt-1"
            :aria-label="`Name of the new field for ${plan.header}`"
            maxlength="60"
            :value="plan.target.name"
            @change="rename(plan, ($event.target as HTMLInputElement).value)"
          />
        </td>
        <td>
          <ColumnReading
            :plan="plan"
            :kinds="kinds"
            @change="emit('change', plan.column, $event)"
          />
        </td>
      </tr>
    </tbody>
  </table>
</template>
