<script setup lang="ts">
import {
  asksForOrder,
  usualWords,
  type ColumnPlan,
  type DateOrder,
  type FieldKind,
} from '~~/core/people'

/** How the text of a column's cells is read: the order of dates, the decimal mark, what separates several values, words for yes and no. */
const props = defineProps<{ plan: ColumnPlan; kinds: ReadonlyMap<string, FieldKind> }>()
const emit = defineEmits<{ change: [more: Partial<ColumnPlan>] }>()

const orders: Record<DateOrder, string> = {
  dmy: 'day first',
  mdy: 'month first',
  ymd: 'year first',
  unix: 'seconds since 1970',
  serial: 'days of a spreadsheet',
}
const separators = {
  ',': 'commas',
  ';': 'semicolons',
  '|': 'bars',
  '+': 'plus signs',
  '/': 'slashes',
}

/** What is to be read: the kind of the field, or what the target says by itself. */
const kind = computed<FieldKind | null>(() => {
  const { target } = props.plan
  if (target.to === 'tags') return 'choices'
  if (target.to === 'list') return 'yesno'
  if (target.to === 'new-field') return target.kind
  return target.to === 'field' ? (props.kinds.get(target.key) ?? null) : null
})
const unclear = computed(() => asksForOrder(props.plan, (key) => props.kinds.get(key)))
const label = (what: string) => `${props.plan.header}: ${what}`

const wordsShown = (which: 'yes' | 'no') => (props.plan.words?.[which] ?? []).join(', ')
function setWords(which: 'yes' | 'no', typed: string) {
  const words = typed
    .split(',')
    .map((word) => word.trim().toLowerCase())
    .filter((word) => word !== '')
  const both = { ...(props.plan.words ?? { yes: [], no: [] }), [which]: words }
  const usual = both.yes.length + both.no.length === 0
  emit('change', { words: usual ? undefined : both } as Partial<ColumnPlan>)
}
const usualFor = (which: 'yes' | 'no') => `${usualWords[which].slice(0, 3).join(', ')} …`
</script>

<template>
  <template v-if="kind === 'date'">
    <select
      class="field field-sm"
      :aria-label="label('order of dates')"
      :aria-invalid="unclear"
      :value="plan.dateOrder ?? ''"
      @change="
        emit('change', { dateOrder: ($event.target as HTMLSelectElement).value as DateOrder })
      "
    >
      <option v-if="unclear" value="" disabled>choose…</option>
      <option v-for="(words, order) in orders" :key="order" :value="order">{{ words }}</option>
    </select>
    <p v-if="unclear" class="fault small mt-1">Day or month first? Both fit.</p>
  </template>
  <select
    v-else-if="kind === 'number'"
    class="field field-sm"
    :aria-label="label('decimal mark')"
    :value="plan.decimal ?? '.'"
    @change="emit('change', { decimal: ($event.target as HTMLSelectElement).value as '.' | ',' })"
  >
    <option value=".">decimal point</option>
    <option value=",">decimal comma</option>
  </select>
  <select
    v-else-if="kind === 'choices'"
    class="field field-sm"
    :aria-label="label('what separates several values')"
    :value="plan.separator ?? ','"
    @change="emit('change', { separator: ($event.target as HTMLSelectElement).value })"
  >
    <option v-for="(words, sign) in separators" :key="sign" :value="sign">
      several, apart by {{ words }}
    </option>
  </select>
  <div v-else-if="kind === 'yesno'" class="grid grid-cols-[28px_1fr] items-center gap-1">
    <template v-for="which in ['yes', 'no'] as const" :key="which">
      <span class="small muted">{{ which }}</span>
      <input
        class="field field-sm"
        :aria-label="label(`words for ${which}`)"
        :placeholder="usualFor(which)"
        :value="wordsShown(which)"
        @change="setWords(which, ($event.target as HTMLInputElement).value)"
      />
    </template>
  </div>
</template>
