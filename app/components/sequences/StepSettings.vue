<script setup lang="ts">
import type { Step } from '~~/core/sequences'
import { inUnits, waitUnits } from './waits'

/** What a step does, and taking it out. */
const props = defineProps<{ id: string; step: Step }>()
const store = useSequence()
const mail = computed(() => {
  const { step } = props
  return step.kind === 'mail'
    ? store.sequence!.mailings.find(({ id }) => id === step.mailingId)
    : undefined
})
const wait = computed(() => (props.step.kind === 'wait' ? inUnits(props.step.ms) : null))
function setWait(n: number, ms: number) {
  if (props.step.kind === 'wait' && Number.isFinite(n) && n >= 1)
    void store.changeStep(props.id, { ...props.step, ms: Math.min(3_660, Math.round(n)) * ms })
}
</script>

<template>
  <template v-if="step.kind === 'mail'">
    <h2>Mail</h2>
    <p v-if="!mail" class="fault mt-2">This mail is gone. Remove the step.</p>
    <template v-else>
      <p class="mt-1 font-semibold">{{ mail.subject || mail.name }}</p>
      <div class="mt-2 flex flex-wrap gap-2">
        <NuxtLink class="btn btn-sm" :to="`/mail/${mail.id}/letter`">{{
          mail.started_at === null ? 'Write the letter' : 'Look at the letter'
        }}</NuxtLink>
        <NuxtLink
          v-if="mail.started_at !== null"
          class="btn btn-sm"
          :to="`/mail/${mail.id}/results`"
          >See results</NuxtLink
        >
      </div>
      <p v-if="mail.started_at !== null && store.canChange" class="muted small mt-2">
        It has gone out to people, so its letter stays as it is. To say it otherwise from now on,
        put another mail in its place.
      </p>
    </template>
  </template>
  <template v-else-if="wait">
    <h2>Wait</h2>
    <fieldset class="mt-2 flex gap-2" :disabled="!store.canChange">
      <KeptInput
        class="field field-sm w-20 text-right"
        type="number"
        min="1"
        max="3660"
        aria-label="How long"
        :value="wait.n"
        @taken="setWait(Number($event), wait.unit.ms)"
      />
      <select
        class="field field-sm !w-auto"
        aria-label="Unit"
        :value="wait.unit.ms"
        @change="setWait(wait.n, Number(($event.target as HTMLSelectElement).value))"
      >
        <option v-for="unit in waitUnits" :key="unit.ms" :value="unit.ms">{{ unit.many }}</option>
      </select>
    </fieldset>
  </template>
  <button v-if="store.canChange" class="btn btn-sm btn-bad mt-4" @click="store.remove(id)">
    Remove this step
  </button>
</template>
