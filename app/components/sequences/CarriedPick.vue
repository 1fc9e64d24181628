<script setup lang="ts">
import type { Carried, Comparison } from '~~/core/segments'

/** What is asked of something that an event carried, or an answer; undefined: nothing. */
const props = withDefaults(defineProps<{ where: Carried | undefined; of?: 'event' | 'answer' }>(), {
  of: 'event',
})
const emit = defineEmits<{ change: [where: Carried | undefined] }>()

const asks = {
  known: 'is there',
  equal: 'is',
  'not-equal': 'is not',
  contains: 'contains',
  'at-least': 'is at least',
  'at-most': 'is at most',
  yes: 'is yes',
  no: 'is no',
} as const
type Ask = keyof typeof asks
const askOf = (test: Comparison): Ask | 'other' =>
  test.is === 'number' && test.than in asks
    ? (test.than as Ask)
    : test.is in asks
      ? (test.is as Ask)
      : 'other'
const valueOf = (test: Comparison) =>
  'number' in test ? String(test.number) : 'text' in test ? test.text : ''
const ask = computed(() => (props.where ? askOf(props.where.test) : 'known'))
const hasValue = computed(() => !['known', 'yes', 'no'].includes(ask.value))
const fault = ref('')

function testOf(asked: Ask, value: string): Comparison | null {
  if (asked === 'known' || asked === 'yes' || asked === 'no') return { is: asked }
  if (asked === 'at-least' || asked === 'at-most') {
    const number = Number(value)
    return Number.isFinite(number) ? { is: 'number', than: asked, number } : null
  }
  return { is: asked, text: value }
}
function put(property: string, asked: Ask, value: string) {
  const named = property.trim()
  fault.value = ''
  if (named === '') return emit('change', undefined)
  if (!/^[\w .-]{1,60}$/.test(named)) {
    fault.value = 'Letters, figures, spaces, dots and hyphens only.'
    return
  }
  const test = testOf(asked, value)
  if (test === null) fault.value = 'A number is needed here.'
  else emit('change', { property: named, test })
}
const now = computed(() => ({
  property: props.where?.property ?? '',
  ask: ask.value === 'other' ? ('known' as const) : ask.value,
  value: props.where ? valueOf(props.where.test) : '',
}))
</script>

<template>
  <div class="grid gap-1.5">
    <KeptInput
      class="field field-sm"
      :aria-label="of === 'event' ? 'What it carried' : 'What is in the answer'"
      :placeholder="of === 'event' ? 'whatever it carried' : 'whatever it answered'"
      maxlength="60"
      :value="now.property"
      @taken="put($event, now.ask, now.value)"
    />
    <div v-if="where" class="flex gap-2">
      <select
        class="field field-sm !w-auto"
        aria-label="How it is asked"
        :value="ask"
        @change="
          put(
            now.property,
            ($event.target as HTMLSelectElement).value as Ask,
            hasValue ? now.value : '0',
          )
        "
      >
        <option v-if="ask === 'other'" value="other">is as it was said</option>
        <option v-for="(words, is) in asks" :key="is" :value="is">{{ words }}</option>
      </select>
      <KeptInput
        v-if="hasValue && ask !== 'other'"
        class="field field-sm"
        aria-label="Value"
        maxlength="200"
        :value="now.value"
        @taken="put(now.property, now.ask, $event)"
      />
    </div>
    <p v-if="fault" class="fault small" role="alert">{{ fault }}</p>
  </div>
</template>
