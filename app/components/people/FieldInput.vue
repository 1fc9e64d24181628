<script setup lang="ts">
import { showFieldValue, type Field, type FieldValue } from '~~/core/people'

/** One field of a person, changed where it stands: `change` has the new value, null for none. */
const props = defineProps<{
  field: Field
  value: FieldValue | undefined
  /** Looks like a field of a form rather than like text that can be changed. */
  framed?: boolean
}>()
const emit = defineEmits<{ change: [value: FieldValue | null] }>()
function set(text: string) {
  const trimmed = text.trim()
  const made: FieldValue | null =
    trimmed === ''
      ? null
      : props.field.kind === 'number'
        ? Number(trimmed)
        : props.field.kind === 'yesno'
          ? trimmed === 'yes'
          : props.field.kind === 'choices'
            ? trimmed
                .split(',')
                .map((one) => one.trim())
                .filter(Boolean)
            : trimmed
  if (JSON.stringify(made) !== JSON.stringify(props.value ?? null)) emit('change', made)
}
const type = computed(
  () => ({ number: 'number', link: 'url' })[props.field.kind as string] ?? 'text',
)
</script>

<template>
  <select
    v-if="field.kind === 'yesno'"
    :class="framed ? 'field' : 'field-inline'"
    :aria-label="field.name"
    :value="showFieldValue(value)"
    @change="set(($event.target as HTMLSelectElement).value)"
  >
    <option value="">—</option>
    <option>yes</option>
    <option>no</option>
  </select>
  <DateField
    v-else-if="field.kind === 'date'"
    :class="framed ? 'field' : 'field-inline'"
    :bare="!framed"
    :aria-label="field.name"
    :placeholder="framed ? undefined : '—'"
    :model-value="showFieldValue(value)"
    @taken="set($event)"
    @keydown.enter="($event.target as HTMLInputElement).blur()"
  />
  <KeptInput
    v-else
    :class="framed ? 'field' : 'field-inline'"
    :type="type"
    step="any"
    :aria-label="field.name"
    :placeholder="framed ? '' : '—'"
    :value="showFieldValue(value)"
    @taken="set($event)"
    @keydown.enter="($event.target as HTMLInputElement).blur()"
  />
</template>
