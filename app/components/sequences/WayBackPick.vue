<script setup lang="ts">
import {
  MOST_TIMES_BACK,
  reachableFrom,
  stepsInOrder,
  type WaitStep,
  type WayBack,
} from '~~/core/sequences'
import { stepWords } from './words'

/** Whether who has waited goes on, or back to a step before it, and how many times. */
const props = defineProps<{ id: string; step: WaitStep }>()
const store = useSequence()
/** The steps that stand before it; one that is chosen and does not is not hidden. */
const targets = computed(() => {
  const { map } = store.sequence!
  const before = stepsInOrder(map)
    .filter(({ id }) => id !== props.id && reachableFrom(map, id).has(props.id))
    .map(({ id, step }) => ({ id, words: stepWords(step, store.sequence!) }))
  const to = props.step.back?.to
  return to === undefined || before.some(({ id }) => id === to)
    ? before
    : [...before, { id: to, words: 'a step that does not stand before it' }]
})
function setBack(back: WayBack | null) {
  const { back: _, ...without } = props.step
  void store.changeStep(props.id, back ? { ...without, back } : without)
}
const choose = (to: string) => setBack(to ? { to, times: props.step.back?.times ?? 3 } : null)
function setTimes(text: string) {
  const times = Math.round(Number(text))
  if (text.trim() === '' || !Number.isFinite(times)) return
  setBack({ ...props.step.back!, times: Math.min(MOST_TIMES_BACK, Math.max(1, times)) })
}
</script>

<template>
  <div v-if="targets.length" class="grid gap-1">
    <label class="grid gap-1"
      ><span class="muted small">After it</span>
      <select
        class="field field-sm"
        :value="step.back?.to ?? ''"
        @change="choose(($event.target as HTMLSelectElement).value)"
      >
        <option value="">on to the next step</option>
        <option v-for="one in targets" :key="one.id" :value="one.id">
          back to “{{ one.words }}”
        </option>
      </select></label
    >
    <template v-if="step.back">
      <label class="flex items-center gap-2"
        >at most
        <KeptInput
          class="field field-sm w-16 text-right"
          type="number"
          min="1"
          :max="MOST_TIMES_BACK"
          aria-label="At most, times"
          :value="step.back.times"
          @taken="setTimes($event)"
        />
        {{ step.back.times === 1 ? 'time' : 'times' }}, then on</label
      >
      <p class="muted small">
        For what is to be asked or done again, as a fork or a Do. Nobody gets a mail of this
        sequence twice in one round.
      </p>
    </template>
  </div>
</template>
