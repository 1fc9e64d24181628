<script setup lang="ts">
import { restOf, WHOLE, type SplitStep } from '~~/core/sequences'

/** The shares of ways by lot. The first has what the others leave. */
const props = defineProps<{ id: string; step: SplitStep }>()
const store = useSequence()
const letters = ['A', 'B', 'C', 'D', 'E']
/** The most that a way may have: something is left for the first. */
const most = (n: number) => (restOf(props.step.ways) + props.step.ways[n]!.share) / 10 - 0.1
function setShare(n: number, percent: number) {
  if (!Number.isFinite(percent)) return
  const share = Math.round(Math.min(most(n), Math.max(0.1, percent)) * 10)
  const ways = props.step.ways.map((way, i) => (i === n ? { ...way, share } : way))
  void store.changeStep(props.id, { ...props.step, ways })
}
/** One more way, and all have the same share again. */
function add() {
  const many = props.step.ways.length + 2
  const share = Math.floor(WHOLE / many)
  const ways = [...props.step.ways, { share, next: props.step.next }]
  void store.changeStep(props.id, { ...props.step, ways: ways.map((way) => ({ ...way, share })) })
}
const passed = computed(() => store.sequence!.traffic[props.id] ?? [])
</script>

<template>
  <h2>Split by lot</h2>
  <p class="muted small mt-1">Somebody always falls the same way here.</p>
  <fieldset class="mt-2 grid gap-2" :disabled="!store.canChange">
    <div class="flex items-center gap-2">
      <b class="w-4">A</b><span class="w-20 text-right">{{ restOf(step.ways) / 10 }}</span
      ><span
        >% <span v-if="passed.length" class="muted small">{{ people(passed[0] ?? 0) }}</span></span
      >
    </div>
    <div v-for="(way, n) in step.ways" :key="n" class="grid gap-1.5 border-t border-line-soft pt-2">
      <div class="flex items-center gap-2">
        <b class="w-4">{{ letters[n + 1] }}</b>
        <KeptInput
          class="field field-sm w-20 text-right"
          type="number"
          min="0.1"
          :max="most(n)"
          step="0.1"
          :aria-label="`Share of ${letters[n + 1]}, percent`"
          :value="way.share / 10"
          @taken="setShare(n, Number($event))"
        /><span class="flex-1"
          >%
          <span v-if="passed.length" class="muted small">{{
            people(passed[n + 1] ?? 0)
          }}</span></span
        >
        <button
          v-if="step.ways.length > 1"
          type="button"
          class="btn btn-sm"
          :aria-label="`Remove way ${letters[n + 1]}`"
          @click="store.removeWay(id, n + 1)"
        >
          Remove
        </button>
      </div>
      <JoinPick :id="id" :way="n + 1" :label="`Way ${letters[n + 1]}: then on to`" />
    </div>
    <button
      v-if="step.ways.length < 4"
      type="button"
      class="btn btn-sm justify-self-start"
      @click="add"
    >
      Another way
    </button>
  </fieldset>
</template>
