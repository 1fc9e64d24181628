<script setup lang="ts">
import type { Step } from '~~/core/sequences'

/** What a step does, and taking it out. */
defineProps<{ id: string; step: Step }>()
const store = useSequence()
</script>

<template>
  <MailSettings v-if="step.kind === 'mail'" :step="step" />
  <WaitSettings v-else-if="step.kind === 'wait'" :id="id" :step="step" />
  <ForkSettings v-else-if="step.kind === 'fork'" :id="id" :step="step" />
  <SplitSettings v-else-if="step.kind === 'split'" :id="id" :step="step" />
  <DoSettings v-else-if="step.kind === 'do'" :id="id" :step="step" />
  <GoalSettings v-else :id="id" :step="step" />
  <button v-if="store.canChange" class="btn btn-sm btn-bad mt-4" @click="store.remove(id)">
    {{ 'ways' in step ? 'Remove it with its side ways' : 'Remove this step' }}
  </button>
</template>
