<script setup lang="ts">
import { reachableFrom, repairNames, type MapMark } from '~~/core/sequences'
import { stepWords } from './words'

/** Marks of a map: each with the step it is about, whom inside it is still ahead of, and what mends it. */
defineProps<{ marks: readonly MapMark[]; level: 'blocker' | 'caution' }>()
const store = useSequence()
const of = computed(() => store.sequence!)
/** How many stand before a step, or at it; as it runs. */
function comeBy(id: string): number {
  const { map, standing } = of.value
  return Object.entries(standing).reduce(
    (sum, [at, many]) => (map.steps[at] && reachableFrom(map, at).has(id) ? sum + many : sum),
    0,
  )
}
const stepOf = ({ step }: MapMark) => (step === null ? undefined : of.value.map.steps[step])
</script>

<template>
  <div v-for="(mark, n) in marks" :key="`${n} ${mark.title}`" class="mt-1.5 flex gap-2">
    <MarkDot :level="level" class="mt-1 flex-none" />
    <div class="min-w-0">
      <p>{{ mark.title }}</p>
      <button
        v-if="stepOf(mark)"
        type="button"
        class="link small block min-h-6 max-w-full truncate text-left"
        @click="store.chosen = mark.step"
      >
        {{ stepWords(stepOf(mark)!, of) }}
      </button>
      <span v-if="stepOf(mark) && comeBy(mark.step!)" class="muted small block"
        >{{ people(comeBy(mark.step!)) }} inside {{ comeBy(mark.step!) === 1 ? 'is' : 'are' }} still
        to come by it</span
      >
      <button
        v-if="mark.repair && store.canChange"
        type="button"
        class="btn btn-sm mt-1"
        @click="store.repair(mark.repair)"
      >
        {{ repairNames[mark.repair.is] }}
      </button>
    </div>
  </div>
</template>
