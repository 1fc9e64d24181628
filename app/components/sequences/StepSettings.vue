<script setup lang="ts">
import { LONGEST_NOTE, type Step } from '~~/core/sequences'

/** What a step does, a note on it, moving and copying it, and taking it out. */
const props = defineProps<{ id: string; step: Step }>()
const store = useSequence()
/** A step with side ways takes along what only those lead to. */
const withWays = computed(() => ('ways' in props.step ? ', with its side ways' : ''))
function setNote(words: string) {
  const { note: _, ...rest } = props.step
  const note = words.trim()
  void store.changeStep(props.id, { ...rest, ...(note && { note }) } as Step)
}
</script>

<template>
  <MailSettings v-if="step.kind === 'mail'" :id="id" :step="step" />
  <WaitSettings v-else-if="step.kind === 'wait'" :id="id" :step="step" />
  <ForkSettings v-else-if="step.kind === 'fork'" :id="id" :step="step" />
  <SplitSettings v-else-if="step.kind === 'split'" :id="id" :step="step" />
  <DoSettings v-else-if="step.kind === 'do'" :id="id" :step="step" />
  <GoalSettings v-else :id="id" :step="step" />
  <label v-if="store.canChange || step.note" class="mt-4 grid gap-1"
    ><span class="muted small">Note</span>
    <KeptInput
      class="field field-sm"
      :maxlength="LONGEST_NOTE"
      :disabled="!store.canChange"
      placeholder="for those who draw it with you"
      :value="step.note ?? ''"
      @taken="setNote($event)"
  /></label>
  <div class="mt-4 flex flex-wrap gap-2">
    <button
      v-if="store.canChange"
      class="btn btn-sm"
      :title="`Ctrl X, then + where it is to be${withWays}`"
      @click="store.pickUp(id, true)"
    >
      Move
    </button>
    <button
      v-may="'PUT /api/sequences/[id]'"
      class="btn btn-sm"
      :title="`Ctrl C, then + where a copy is to be, in this sequence or another${withWays}`"
      @click="store.pickUp(id, false)"
    >
      Copy
    </button>
    <button v-if="store.canChange" class="btn btn-sm btn-bad" @click="store.remove(id)">
      {{ 'ways' in step ? 'Remove it with its side ways' : 'Remove this step' }}
    </button>
  </div>
</template>
