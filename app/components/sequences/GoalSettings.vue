<script setup lang="ts">
import { MOST_GOAL_DAYS, type GoalStep } from '~~/core/sequences'

/** What the sequence is for, until when and for how much it counts, and what becomes of who reaches it. */
const props = defineProps<{ id: string; step: GoalStep }>()
const store = useSequence()
const currency = computed(() => useSession().account?.currency ?? 'GBP')
const change = (over: Partial<GoalStep>) =>
  void store.changeStep(props.id, { ...props.step, ...over })
function setDays(typed: string) {
  const { within: _, ...rest } = props.step
  const days = Math.min(MOST_GOAL_DAYS, Math.round(Number(typed)))
  void store.changeStep(props.id, { ...rest, ...(days >= 1 && { within: days }) })
}
function setWorth(typed: string) {
  const { worth: _, ...rest } = props.step
  const minor = Math.round(Number(typed) * unitOf(currency.value))
  const isWorth = typed.trim() !== '' && minor >= 0
  void store.changeStep(props.id, { ...rest, ...(isWorth && { worth: minor }) })
}
const then = computed(() => (props.step.out ? 'out' : props.step.ways ? 'way' : 'on'))
/** Where those who reached it go no way of their own any more, it goes, with what only that led to. */
function lead(where: string) {
  const { ways, ...rest } = props.step
  const own = where === 'way' ? { ways: ways ?? [{ next: rest.next }] } : {}
  void store.changeStep(props.id, { ...rest, out: where === 'out', ...own })
}
</script>

<template>
  <h2>Goal</h2>
  <fieldset class="mt-2 grid min-w-0 grid-cols-[minmax(0,1fr)] gap-3" :disabled="!store.canChange">
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
    <label class="flex items-center gap-2"
      ><span class="muted small w-16">within</span>
      <KeptInput
        class="field field-sm w-20 text-right"
        type="number"
        min="1"
        :max="MOST_GOAL_DAYS"
        placeholder="any"
        :value="step.within ?? ''"
        @taken="setDays"
      /><span class="muted small">days of coming in</span></label
    >
    <label class="flex items-center gap-2"
      ><span class="muted small w-16">worth</span>
      <KeptInput
        class="field field-sm w-20 text-right"
        type="number"
        min="0"
        step="any"
        placeholder="orders"
        :value="step.worth === undefined ? '' : step.worth / unitOf(currency)"
        @taken="setWorth"
      /><span class="muted small">{{ currency }} each time</span></label
    >
    <label class="grid gap-1"
      ><span class="muted small">Who reaches it</span>
      <select
        class="field field-sm"
        :value="then"
        @change="lead(($event.target as HTMLSelectElement).value)"
      >
        <option value="out">is out of the sequence</option>
        <option value="on">goes on behind it</option>
        <option value="way">goes a way of their own</option>
      </select></label
    >
    <JoinPick v-if="step.ways" :id="id" :way="1" label="Who reached it: then on to" />
  </fieldset>
  <p class="muted small mt-3">
    It is asked before each step that stands before it. Who comes by without having reached it goes
    on.
  </p>
</template>
