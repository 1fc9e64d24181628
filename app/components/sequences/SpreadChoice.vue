<script setup lang="ts">
/** Over how long those go on who waited while a sequence was paused. */
const spread = defineModel<number>({ required: true })
const store = useSequence()
const { answer, problem, loading } = useAnswer<{ people: number; more: boolean }>(
  () => `/api/sequences/${store.sequence!.id}/waiting`,
  { live: false },
)
/** Asked anew each time: until then nothing is shown of the time before. */
const waiting = computed(() => (loading.value ? null : answer.value))
/** Whether it is known who waited, or that it can't be: before, nobody is let go on. */
const emit = defineEmits<{ known: [isKnown: boolean] }>()
watch(
  () => waiting.value !== null || (problem.value !== '' && !loading.value),
  (isKnown) => emit('known', isKnown),
  { immediate: true },
)
const HOUR = 3_600_000
const times = [
  { ms: 0, name: 'all at once' },
  { ms: HOUR, name: 'over an hour' },
  { ms: 6 * HOUR, name: 'over 6 hours' },
  { ms: 24 * HOUR, name: 'over a day' },
  { ms: 3 * 24 * HOUR, name: 'over 3 days' },
  { ms: 7 * 24 * HOUR, name: 'over a week' },
]
</script>

<template>
  <p v-if="problem && !loading" class="fault" role="alert">{{ problem }}</p>
  <p v-else-if="!waiting" class="muted" role="status">Counting who waited…</p>
  <p v-else-if="!waiting.people">Nobody’s next step came due meanwhile.</p>
  <div v-else class="grid gap-2">
    <p>
      The next step of {{ waiting.more ? 'more than ' : '' }}{{ people(waiting.people) }} came due
      while it was paused.
    </p>
    <label class="flex items-center gap-2"
      >They go on
      <select v-model.number="spread" class="field field-sm !w-auto">
        <option v-for="{ ms, name } in times" :key="ms" :value="ms">{{ name }}</option>
      </select></label
    >
    <p v-if="spread" class="muted small">
      Evenly, each at a moment by lot. Whose next step is due later is not held up.
    </p>
  </div>
</template>
