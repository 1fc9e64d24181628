<script setup lang="ts">
import { rateOf, timeLeft, withSample, type DueLater, type Sample } from '~~/core/dispatch'

/** How quickly a mailing goes out, when it will be through, and who waits for a time of their own. */
const props = defineProps<{ tried: number; waiting: number; later: DueLater | null }>()
const live = useLive()
const { dayAndTime } = useTimes()
const samples = shallowRef<Sample[]>([])
watch(
  () => props.tried,
  (tried) => (samples.value = withSample(samples.value, { at: live.now, tried })),
  { immediate: true },
)
const rate = computed(() => rateOf(samples.value, live.now))
const left = computed(() => timeLeft(props.waiting - (props.later?.people ?? 0), rate.value))
const pace = computed(
  () =>
    rate.value !== null &&
    rate.value > 0 &&
    [
      `${count(Number(rate.value.toPrecision(2)))} a minute`,
      left.value && `${lasting(left.value)} left`,
    ]
      .filter(Boolean)
      .join(', '),
)
const waits = computed(() => {
  if (!props.later) return null
  const { people: many, first, last } = props.later
  if (many === 1) return `One person waits for a time of their own: ${dayAndTime(first)}.`
  const until = last > first ? `, the last at ${dayAndTime(last)}` : ''
  return `${people(many)} wait for a time of their own: the next at ${dayAndTime(first)}${until}.`
})
</script>

<template>
  <p v-if="pace || waits" class="small muted mt-2.5">
    <b v-if="pace" class="font-[560]">{{ pace }}.</b> {{ waits }}
  </p>
</template>
