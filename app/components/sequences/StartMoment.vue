<script setup lang="ts">
import { isDayRule, type MomentStart } from '~~/core/sequences'
import { isDay } from '~~/core/time'
import { repeatsFrom, ruleMoved } from './repeats'

/** A moment at which a whole segment comes in, once or again. */
const props = defineProps<{ start: MomentStart }>()
const emit = defineEmits<{ change: [start: MomentStart] }>()
const store = useSequence()
const of = computed(() => store.sequence!)
const usual = computed(() => (props.start.from ? repeatsFrom(props.start.from) : []))
/** A rule of one's own is being written. */
const own = ref(false)
const isOwn = computed(
  () =>
    own.value ||
    (props.start.rule !== null && !usual.value.some(({ rule }) => rule === props.start.rule)),
)
const fault = ref('')
const put = (over: Partial<MomentStart>) => emit('change', { ...props.start, ...over })
function setDay(day: string) {
  if (isDay(day)) put({ from: day, rule: ruleMoved(props.start.rule, props.start.from, day) })
}
function choose(event: Event) {
  const rule = (event.target as HTMLSelectElement).value
  own.value = rule === 'own'
  fault.value = ''
  if (rule !== 'own') put({ rule: rule || null })
}
function write(typed: string) {
  const rule = typed.trim().toUpperCase()
  fault.value = isDayRule(rule) ? '' : 'This is no rule of days, such as FREQ=WEEKLY;BYDAY=MO,TH.'
  if (!fault.value) put({ rule })
}
</script>

<template>
  <div class="grid gap-1.5">
    <select
      class="field field-sm"
      aria-label="Who comes in"
      :value="start.segmentId"
      @change="put({ segmentId: Number(($event.target as HTMLSelectElement).value) })"
    >
      <option :value="0">everybody on the list</option>
      <option v-for="one in of.segments" :key="one.id" :value="one.id">{{ one.name }}</option>
    </select>
    <DateField
      class="field field-sm"
      aria-label="On the day"
      :model-value="start.from"
      @taken="setDay"
    />
    <HourOfDay :hour="start.hour" @change="put({ hour: $event })" />
    <select
      v-if="start.from"
      class="field field-sm"
      aria-label="Again"
      :value="isOwn ? 'own' : (start.rule ?? '')"
      @change="choose"
    >
      <option value="">once</option>
      <option v-for="one in usual" :key="one.rule" :value="one.rule">{{ one.words }}</option>
      <option value="own">by a rule of your own</option>
    </select>
    <template v-if="isOwn">
      <KeptInput
        class="field field-sm"
        aria-label="The rule"
        maxlength="200"
        placeholder="FREQ=MONTHLY;BYDAY=1MO"
        :value="start.rule ?? ''"
        @taken="write"
      />
      <p v-if="fault" class="fault small" role="alert">{{ fault }}</p>
      <p v-else class="muted small">A recurrence rule as calendars write it (RFC 5545).</p>
    </template>
    <p v-if="start.rule !== null" class="muted small">
      Who was inside comes in anew only as “Again” below says.
    </p>
  </div>
</template>
