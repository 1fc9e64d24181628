<script setup lang="ts">
import type { ByAsked, FieldCost } from '~~/core/sign-ups'

/** What asking for a field did here, where it is chosen: this form's versions with it against those without, else all forms by number. */
const props = defineProps<{ field: string }>()
const store = useSignUp()
const { answer, problem } = useAnswer<{ byNumber: ByAsked[]; costs: FieldCost[] }>(() =>
  store.signUp ? `/api/sign-ups/${store.signUp.id}/asking` : null,
)
const cost = computed(() => answer.value?.costs.find(({ field }) => field === props.field)?.cost)
const asked = computed(
  () =>
    store.signUp!.form.parts.filter((part) => part.kind === 'field' && part.field !== 'address')
      .length,
)
const rateOf = (n: number) =>
  answer.value?.byNumber.find((one) => one.asked === Math.min(n, 3) && one.seen > 0)
const points = (share: number) => `${share > 0 ? '−' : '+'}${Math.abs(share * 100).toFixed(1)}`
const words = computed(() => {
  if (cost.value) {
    const { difference, low, high } = cost.value
    const fewer = difference > 0 ? 'fewer' : 'more'
    return `Where this form asked it, ${Math.abs(difference * 100).toFixed(1)} points ${fewer} of those who saw it confirmed (95% interval ${points(high)} to ${points(low)} points).`
  }
  const [now, without] = [rateOf(asked.value), rateOf(asked.value - 1)]
  const said = (one: ByAsked) =>
    `${percent(one.rate.rate)} (${percent(one.rate.low)} to ${percent(one.rate.high)}, of ${count(one.seen)})`
  return now && without
    ? `Forms here that ask ${asked.value === 1 ? 'one thing' : `${Math.min(asked.value, 3)}${asked.value > 2 ? ' or more' : ''} things`} besides the address brought ${said(now)} of those who saw them; with one fewer ${said(without)}.`
    : null
})
</script>

<template>
  <p v-if="problem" class="fault small" role="alert">{{ problem }}</p>
  <p v-else-if="words" class="muted small" aria-label="What asking it achieved here">{{ words }}</p>
</template>
