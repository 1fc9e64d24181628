<script setup lang="ts">
import type { GoalStep } from '~~/core/sequences'

/** What the sequence is for, and what becomes of who reaches it. */
const props = defineProps<{ id: string; step: GoalStep }>()
const store = useSequence()
const change = (over: Partial<GoalStep>) =>
  void store.changeStep(props.id, { ...props.step, ...over })
</script>

<template>
  <h2>Goal</h2>
  <fieldset class="mt-2 grid gap-3" :disabled="!store.canChange">
    <label class="grid gap-1"
      ><span class="muted small">What it is called</span>
      <KeptInput
        class="field field-sm"
        maxlength="80"
        placeholder="e.g. the first order"
        :value="step.name"
        @taken="change({ name: $event })"
    /></label>
    <div class="grid gap-1">
      <span class="muted small">Reached by who</span>
      <HappeningPick label="Reached by who" :what="step.when" @change="change({ when: $event })" />
    </div>
    <label class="grid gap-1"
      ><span class="muted small">Who reaches it</span>
      <select
        class="field field-sm"
        :value="step.out ? 'out' : 'on'"
        @change="change({ out: ($event.target as HTMLSelectElement).value === 'out' })"
      >
        <option value="out">is out of the sequence</option>
        <option value="on">goes on behind it</option>
      </select></label
    >
  </fieldset>
  <p class="muted small mt-3">
    It is asked before each step that stands before it. Who comes by without having reached it goes
    on.
  </p>
</template>
