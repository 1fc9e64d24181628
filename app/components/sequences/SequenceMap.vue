<script setup lang="ts">
import { layOut, type LaidEdge } from '~~/core/sequences'
import { stepFigures, stepWords, wayWords } from './words'

/** A sequence as a map: its stops with who is there and what came of them, its ways, and where steps can be put in. */
const store = useSequence()
const of = computed(() => store.sequence!)
const laid = computed(() => layOut(of.value.map))

/** Of a column its width, of a row its height, and where the line runs within a column. */
const COLUMN = 390
const ROW = 86
const LINE = 150
const TOP = 34
const x = (column: number) => LINE + column * COLUMN
const y = (row: number) => TOP + row * ROW
const size = computed(() => ({
  width: Math.max(1, laid.value.columns) * COLUMN + 60,
  height: y(laid.value.rows - 1) + 60,
}))

const startWords = computed(() => {
  const { when } = of.value.map.start
  if (when.is === 'event') return `Start: does “${when.name}”`
  const list = of.value.lists.find(({ id }) => id === of.value.listId)
  return list ? `Start: joins ${list.name}` : 'Start: joins a list'
})
const stops = computed(() => {
  const { counts, map } = of.value
  const { inside, finished, left } = counts
  return laid.value.stops.map((stop) => {
    const at = { left: x(stop.column), top: y(stop.row) }
    if (stop.id === 'start')
      return {
        ...{ ...stop, at, kind: 'end' as const, words: startWords.value },
        about: map.start.rule ? 'once a person, and only some' : 'once a person',
        count: `${count(inside + finished + left)} came in`,
      }
    if (stop.id === 'finish')
      return {
        ...{ ...stop, at, kind: 'end' as const, words: 'Finish' },
        about: left ? `${people(left)} left on the way` : '',
        count: `${count(finished)} out`,
      }
    const step = map.steps[stop.id]!
    return {
      ...{ ...stop, at, kind: step.kind, words: stepWords(step, of.value) },
      ...stepFigures(stop.id, step, of.value),
    }
  })
})
const stopOf = (id: string) => stops.value.find((stop) => stop.id === id)!

/** A way as a line: out of its stop to its lane, down that, and in to the next stop. */
function drawn({ from, to, lane }: LaidEdge) {
  const [a, b] = [stopOf(from).at, stopOf(to).at]
  const down = x(lane)
  const half = (a.top + b.top) / 2
  const out = Math.min(a.top + 0.86 * ROW, half)
  const inAt = Math.max(b.top - 0.86 * ROW, half)
  const leave =
    a.left === down
      ? `L${down} ${out}`
      : `C${a.left + 24} ${a.top + 46} ${down} ${a.top + 14} ${down} ${out}`
  const arrive =
    b.left === down
      ? `L${down} ${b.top}`
      : `C${down} ${b.top - 14} ${b.left + 24} ${b.top - 46} ${b.left} ${b.top}`
  return `M${a.left} ${a.top}${leave}L${down} ${inAt}${arrive}`
}
const edges = computed(() =>
  laid.value.edges.map((edge) => {
    const a = stopOf(edge.from)
    const step = of.value.map.steps[edge.from]
    const words = step ? wayWords(step, edge.way, of.value) : ''
    const traffic = of.value.traffic[edge.from] ?? []
    const all = traffic.reduce((sum, n) => sum + n, 0)
    const isSide = edge.lane !== a.column
    // Where it turns down into its lane, or halfway to the next.
    const top = a.at.top + (isSide ? 0.86 * ROW : 0.55 * ROW)
    return {
      ...edge,
      path: drawn(edge),
      isSide,
      at: { left: x(edge.lane), top },
      words: words && all ? `${words} · ${percent((traffic[edge.way] ?? 0) / all)}` : words,
      where: words ? `${a.words}, ${words}` : a.words,
    }
  }),
)
const spotOf = ({ from, way }: LaidEdge) => ({ step: from === 'start' ? null : from, way })
</script>

<template>
  <div
    class="relative mx-auto"
    :style="{ width: `${size.width}px`, height: `${size.height}px` }"
    role="group"
    aria-label="Steps"
  >
    <svg class="absolute inset-0" :width="size.width" :height="size.height" aria-hidden="true">
      <path
        v-for="edge in edges"
        :key="`${edge.from} ${edge.way}`"
        :d="edge.path"
        fill="none"
        stroke-width="6"
        stroke-linejoin="round"
        :stroke="edge.way === 0 ? 'var(--canvas-500)' : 'var(--way)'"
      />
    </svg>
    <div
      v-for="edge in edges"
      :key="`${edge.from} ${edge.way}`"
      class="absolute flex -translate-x-[13px] -translate-y-1/2 items-center gap-2 whitespace-nowrap"
      :class="{ 'z-10': true }"
      :style="{ left: `${edge.at.left}px`, top: `${edge.at.top}px` }"
    >
      <AddStep
        v-if="store.canChange"
        :where="edge.where"
        @add="store.addStep(spotOf(edge), $event)"
      />
      <span v-else class="w-[26px]" />
      <span
        v-if="edge.words"
        class="max-w-[230px] truncate text-[12px] font-semibold"
        :class="edge.way === 0 ? 'text-canvas-600' : 'text-[var(--way)]'"
        >{{ edge.words }}</span
      >
    </div>
    <template v-for="stop in stops" :key="stop.id">
      <span
        class="absolute -translate-y-1/2 rounded border border-line bg-sheet px-2 py-0.5 text-right text-[12px] whitespace-nowrap text-ink-700"
        :style="{ right: `${size.width - stop.at.left + 26}px`, top: `${stop.at.top}px` }"
        >{{ stop.count }}</span
      >
      <StepIcon
        :kind="stop.kind"
        class="pointer-events-none absolute -translate-x-1/2 -translate-y-1/2"
        :style="{ left: `${stop.at.left}px`, top: `${stop.at.top}px` }"
      />
      <component
        :is="stop.id === 'finish' ? 'span' : 'button'"
        :type="stop.id === 'finish' ? undefined : 'button'"
        class="absolute w-[224px] -translate-y-1/2 rounded-md border border-dashed px-2 py-1 text-left"
        :class="store.chosen === stop.id ? 'border-brass-500 bg-brass-100' : 'border-transparent'"
        :style="{ left: `${stop.at.left + 20}px`, top: `${stop.at.top}px` }"
        :aria-pressed="stop.id === 'finish' ? undefined : store.chosen === stop.id"
        :title="stop.words"
        @click="stop.id !== 'finish' && (store.chosen = stop.id)"
      >
        <span class="block truncate font-semibold">{{ stop.words }}</span>
        <span v-if="stop.about" class="muted small block truncate">{{ stop.about }}</span>
      </component>
    </template>
  </div>
</template>
