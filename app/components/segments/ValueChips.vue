<script setup lang="ts">
import {
  readTexts,
  showTexts,
  type Comparison,
  type Family,
  type NumberComparison,
  type TimeComparison,
} from '~~/core/segments'
import { withDay, type DayKind } from './day-kinds'

/** A comparison with a value of one family; `values`: those people have most often, to choose from. */
const props = defineProps<{
  test: Comparison
  family: Family
  values: { value: string; n: number }[]
}>()
const emit = defineEmits<{ change: [test: Comparison]; look: [] }>()
const { today } = useToday()
const id = useId()
const kinds: Record<Family, Record<string, string>> = {
  any: {},
  text: {
    equal: 'is',
    'not-equal': 'is not',
    contains: 'contains',
    starts: 'starts with',
    ends: 'ends with',
    'one-of': 'is one of',
  },
  choices: { includes: 'includes', 'includes-not': 'does not include' },
  number: { number: 'is' },
  yesno: { yes: 'is yes', no: 'is no' },
  day: {
    anniversary: 'has its anniversary',
    'last-days': 'is in the last',
    'next-days': 'is in the next',
    before: 'is before',
    after: 'is after',
    on: 'is on',
    'from-to': 'is from',
  },
}
const options = computed(() => ({
  ...kinds[props.family],
  known: 'is known',
  empty: 'is empty',
}))
const shown = computed(() => (props.test.is === 'between' ? 'number' : props.test.is))
const text = computed(() =>
  'texts' in props.test ? showTexts(props.test.texts) : 'text' in props.test ? props.test.text : '',
)
function choose(is: string) {
  const { test } = props
  const words = text.value || props.values[0]?.value || '…'
  const made: Record<string, () => Comparison> = {
    'one-of': () => ({ is: 'one-of', texts: [words] }),
    number: () => ({ is: 'number', than: 'over', number: 0 }),
    anniversary: () => ({ is: 'anniversary', days: 7 }),
  }
  if (made[is]) return emit('change', made[is]())
  if (['known', 'empty', 'yes', 'no'].includes(is)) return emit('change', { is } as Comparison)
  if (is === 'last-days' || is === 'next-days')
    return emit('change', { is, days: 'days' in test ? Math.max(1, test.days) : 30 })
  if (['before', 'after', 'on', 'from-to'].includes(is))
    return emit('change', withDay(is as DayKind, test, today()))
  emit('change', { is: is as 'equal', text: words })
}
function write(typed: string) {
  const trimmed = typed.trim()
  if (trimmed === '') return
  if (props.test.is === 'one-of') {
    const texts = readTexts(trimmed)
    if (texts.length) emit('change', { is: 'one-of', texts })
  } else if ('text' in props.test) emit('change', { ...props.test, text: trimmed })
}
function anniversary(typed: string) {
  const days = Math.round(Number(typed))
  if (typed !== '' && days >= 0 && days <= 366) emit('change', { is: 'anniversary', days })
}
</script>

<template>
  <select
    class="chip"
    aria-label="Comparison"
    :value="shown"
    @change="choose(($event.target as HTMLSelectElement).value)"
  >
    <option v-for="(words, is) in options" :key="is" :value="is">{{ words }}</option>
  </select>
  <template v-if="'text' in test || 'texts' in test">
    <KeptInput
      class="chip min-w-24 field-sizing-content"
      aria-label="Value"
      :list="id"
      :value="text === '…' ? '' : text"
      placeholder="…"
      @focus="emit('look')"
      @taken="write($event)"
    />
    <datalist :id="id">
      <option v-for="one in values" :key="one.value" :value="one.value">{{ people(one.n) }}</option>
    </datalist>
  </template>
  <NumberChips
    v-else-if="test.is === 'number' || test.is === 'between'"
    :test="test as NumberComparison"
    @change="emit('change', $event)"
  />
  <template v-else-if="test.is === 'anniversary'">
    <span>within</span>
    <KeptInput
      class="chip w-16 text-right"
      type="number"
      min="0"
      max="366"
      aria-label="Days"
      :value="test.days"
      @taken="anniversary($event)"
    />
    <span>{{ test.days === 1 ? 'day' : 'days' }}</span>
  </template>
  <TimeValue
    v-else-if="'days' in test || 'day' in test || test.is === 'from-to'"
    :when="test as TimeComparison"
    @change="emit('change', $event)"
  />
</template>
