<script setup lang="ts">
import type { ForkStep, Happening } from '~~/core/sequences'

/** The ways of a fork: asked in order, the first that holds is taken. */
const props = defineProps<{ id: string; step: ForkStep }>()
const store = useSequence()
function ask(n: number, when: Happening) {
  const ways = props.step.ways.map((way, i) => (i === n ? { ...way, when } : way))
  void store.changeStep(props.id, { ...props.step, ways })
}
function add() {
  const way = { when: { is: 'ordered' as const }, next: props.step.next }
  void store.changeStep(props.id, { ...props.step, ways: [...props.step.ways, way] })
}
</script>

<template>
  <h2>Fork</h2>
  <p class="muted small mt-1">
    Asked from the first to the last; who fits none goes with everyone else.
  </p>
  <fieldset class="mt-2 grid gap-3" :disabled="!store.canChange">
    <div v-for="(way, n) in step.ways" :key="n" class="grid gap-1.5 border-t border-line-soft pt-2">
      <span class="flex items-center justify-between"
        ><b class="small font-semibold">{{ step.ways.length > 1 ? `Way ${n + 1}` : 'Yes' }}: who</b>
        <button
          v-if="step.ways.length > 1"
          type="button"
          class="btn btn-sm"
          @click="store.removeWay(id, n + 1)"
        >
          Remove
        </button></span
      >
      <HappeningPick :label="`Way ${n + 1}: who`" :what="way.when" @change="ask(n, $event)" />
      <JoinPick :id="id" :way="n + 1" :label="`Way ${n + 1}: then on to`" />
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
