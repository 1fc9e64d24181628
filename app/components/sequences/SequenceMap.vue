<script setup lang="ts">
import { layOut, writeRoundsAsked, type LaidEdge, type RoundsAsked } from '~~/core/sequences'
import { pictureOf } from './picture'
import { rehearsedFigures, stepFigures } from './step-figures'
import { againWords, startAbout, startWords, stepWords, wayWords } from './words'

/** A sequence as a map: its stops with who is there and what came of them, its ways, and where steps can be put in. */
const props = defineProps<{
  /** Whether it shows what came of it: ways begin as wide as many went by them. */ wide?: boolean
}>()
const store = useSequence()
/** What came of it is told of the map that ran; steps are put in on the one that is drawn. */
const of = computed(() => (props.wide ? store.asItRuns! : store.sequence!))
const canDraw = computed(() => store.canChange && !props.wide)
const laid = computed(() => layOut(of.value.map))
/** While it is rehearsed, the map shows what came of that in place of what came of it so far. */
const rehearsing = useRehearsal()
const rehearsal = computed(() => (rehearsing.isOn ? rehearsing.rehearsal : null))
/** How many came by; while a rehearsal is still to come, nobody. */
const figures = computed(() => {
  if (!rehearsing.isOn) return of.value
  const drawn = rehearsal.value
  return {
    counts: {
      inside: drawn?.inside.middle ?? 0,
      finished: drawn?.finished.middle ?? 0,
      left: drawn?.left.middle ?? 0,
    },
    traffic: Object.fromEntries(
      Object.entries(drawn?.traffic ?? {}).map(([id, ways]) => [id, ways.map((way) => way.middle)]),
    ),
  }
})

/** Of a column its width, of a row its height, and where the line runs within a column. */
const COLUMN = 350
const ROW = 92
const LINE = 130
const TOP = 44
/** Words beside a stop; and how far below one, of a row, a way has come into its lane. */
const WORDS = 204
const TURNED = 0.5
const x = (column: number) => LINE + column * COLUMN
const y = (row: number) => TOP + row * ROW
const size = computed(() => ({
  width: x(Math.max(1, laid.value.columns) - 1) + WORDS + 36,
  // Room below it for what lies over the corner.
  height: y(laid.value.rows - 1) + 70,
}))

/** Whether ways are as wide as many went by them. */
const byPeople = ref(props.wide)
const WIDE = 30
const isEmpty = computed(() => Object.keys(of.value.map.steps).length === 0)
/** How large it is drawn; 1: as it is. */
const zoom = ref(1)
const room = useTemplateRef('room')
const drawing = useTemplateRef('drawing')
/** As it is shown now; null where there is nothing to draw. */
const picture = () =>
  drawing.value && !isEmpty.value ? pictureOf(drawing.value, size.value, of.value.name) : null
defineExpose({ picture })
const zooms = [0.4, 0.5, 0.65, 0.8, 1, 1.25]
const larger = computed(() => zooms.find((one) => one > zoom.value + 0.001))
const smaller = computed(() => zooms.findLast((one) => one < zoom.value - 0.001))
/** So that all of it is seen, and never larger than it is. */
function fit() {
  const { clientWidth, clientHeight } = room.value!
  const { width, height } = size.value
  zoom.value = Math.max(0.3, Math.min(1, clientWidth / width, clientHeight / height))
}

const stops = computed(() => {
  const { map } = of.value
  const { inside, finished, left } = figures.value.counts
  const isKnown = !rehearsing.isOn || rehearsal.value !== null
  return laid.value.stops.map((stop) => {
    const at = { left: x(stop.column), top: y(stop.row) }
    if (stop.id === 'start')
      return {
        ...{ ...stop, at, kind: 'end' as const, words: startWords(map.start.by, of.value) },
        note: '',
        about: [
          ...(of.value.counts.heldOut && !rehearsing.isOn
            ? [`${count(of.value.counts.heldOut)} held out`]
            : []),
          ...startAbout(map.start.by),
          againWords(map.start.again),
          ...(map.start.rule ? ['only some'] : []),
        ].join(' · '),
        count: isKnown
          ? `${count(rehearsal.value?.cameIn.middle ?? inside + finished + left)} came in`
          : '',
      }
    if (stop.id === 'finish')
      return {
        ...{ ...stop, at, kind: 'end' as const, words: 'Finish' },
        note: '',
        about: left ? `${people(left)} left on the way` : '',
        count: isKnown ? `${count(finished)} out` : '',
      }
    const step = map.steps[stop.id]!
    return {
      ...{ ...stop, at, kind: step.kind, words: stepWords(step, of.value), note: step.note ?? '' },
      ...(rehearsal.value
        ? rehearsedFigures(stop.id, step, of.value, rehearsal.value)
        : isKnown
          ? stepFigures(stop.id, step, of.value)
          : { about: '', count: '' }),
    }
  })
})
/** In results each figure leads to its people. */
const route = useRoute()
const NuxtLink = resolveComponent('NuxtLink')
function figure({ step, way = null, stand = 'came' }: Partial<RoundsAsked>) {
  if (!props.wide) return undefined
  return { query: { ...route.query, ...writeRoundsAsked({ stand, step: step ?? null, way }) } }
}
/** As the count at the stop says it: who came in or out, stands at a wait, reached a goal, or went by. */
function leads(id: string) {
  const step = of.value.map.steps[id]
  if (id === 'finish') return figure({ stand: 'finished' })
  if (!step) return figure({})
  if (step.kind === 'mail') {
    // Its messages stand with it: of everybody, and of each version apart.
    const isWhole = props.wide && !store.narrowed && !step.versions
    return isWhole ? { path: `/mail/${step.mailingId}/results`, hash: '#messages' } : undefined
  }
  if (step.kind === 'wait') return figure({ stand: 'inside', step: id })
  return figure({ step: id, way: step.kind === 'goal' ? 1 : null })
}
const stopOf = (id: string) => stops.value.find((stop) => stop.id === id)!

/** A way as a line: out of its stop to its lane, down that, and in to the next stop. */
function drawn({ from, to, lane }: LaidEdge) {
  const [a, b] = [stopOf(from).at, stopOf(to).at]
  const down = x(lane)
  const half = (a.top + b.top) / 2
  const out = Math.min(a.top + TURNED * ROW, half)
  const inAt = Math.max(b.top - TURNED * ROW, half)
  const leave =
    a.left === down
      ? `L${down} ${out}`
      : `C${a.left} ${a.top + 64} ${down} ${a.top + 16} ${down} ${out}`
  const arrive =
    b.left === down
      ? `L${down} ${b.top}`
      : `C${down} ${b.top - 16} ${b.left} ${b.top - 64} ${b.left} ${b.top}`
  return `M${a.left} ${a.top}${leave}L${down} ${inAt}${arrive}`
}
const edges = computed(() =>
  laid.value.edges.map((edge) => {
    const a = stopOf(edge.from)
    const step = of.value.map.steps[edge.from]
    const words = step ? wayWords(step, edge.way, of.value) : ''
    const traffic = figures.value.traffic[edge.from] ?? []
    const all = traffic.reduce((sum, n) => sum + n, 0)
    const { inside, finished, left } = figures.value.counts
    const entered = inside + finished + left
    const passed = edge.from === 'start' ? entered : (traffic[edge.way] ?? 0)
    const share = step?.kind === 'split' ? count(passed) : percent(passed / all)
    return {
      ...edge,
      path: drawn(edge),
      width: byPeople.value ? Math.max(2, (WIDE * passed) / Math.max(1, entered)) : 6,
      at: { left: x(edge.lane), top: a.at.top + 0.56 * ROW },
      // Beside the line, or above where it goes over to its lane.
      label:
        edge.lane === a.column
          ? { left: `${x(edge.lane) + 16}px`, top: `${a.at.top + 0.56 * ROW}px` }
          : {
              right: `${size.value.width - x(edge.lane) + 4}px`,
              top: `${a.at.top + 0.16 * ROW}px`,
            },
      words: words && all ? `${words} · ${share}` : words,
      where: words ? `${a.words}, ${words}` : a.words,
      leads:
        edge.from in of.value.map.steps ? figure({ step: edge.from, way: edge.way }) : undefined,
    }
  }),
)
/** Ways back, to the left of their stops: up beside the line, and in to the step from above. */
const ASIDE = 21
const backs = computed(() =>
  laid.value.stops.flatMap(({ id }) => {
    const step = of.value.map.steps[id]
    const to = step?.kind === 'wait' && step.back ? step.back.to : null
    if (to === null || !laid.value.stops.some((stop) => stop.id === to)) return []
    const [a, b] = [stopOf(id).at, stopOf(to).at]
    const aside = a.left - ASIDE
    const over = b.top - 22
    const inTo = b.left === a.left ? a.left : b.left + 9
    const path = `M${a.left} ${a.top}C${aside} ${a.top} ${aside} ${a.top - 4} ${aside} ${a.top - 16}L${aside} ${over + 8}Q${aside} ${over} ${aside + Math.sign(inTo - aside) * 8} ${over}L${inTo - Math.sign(inTo - aside) * 3} ${over}`
    const point = Math.sign(inTo - aside)
    const tip = `M${inTo} ${over}l${-7 * point} -5v10z`
    return [{ id, path, tip }]
  }),
)
const held = computed(() => (store.held ? stepWords(store.held.step, of.value) : null))
const spotOf = ({ from, way }: LaidEdge) => ({ step: from === 'start' ? null : from, way })

/** The step that is dragged, and the place it is over; Ctrl or Alt as it is let go: a copy of it is put there. */
const dragged = ref<string | null>(null)
const over = ref<string | null>(null)
const keyOf = ({ from, way }: LaidEdge) => `${from} ${way}`
function dragStart(event: DragEvent, id: string) {
  event.dataTransfer!.effectAllowed = 'copyMove'
  event.dataTransfer!.setData('text/plain', stopOf(id).words)
  store.pickUp(id, true)
  // What is dragged may not change in the middle of being taken up.
  requestAnimationFrame(() => (dragged.value = id))
}
function drop(event: DragEvent, edge: LaidEdge) {
  const id = dragged.value
  dragged.value = over.value = null
  if (id === null) return
  if (event.ctrlKey || event.altKey) store.pickUp(id, false)
  void store.putHeld(spotOf(edge))
}
/** Let go anywhere else, it stays where it is. */
function dragEnd() {
  if (dragged.value !== null) store.held = null
  dragged.value = over.value = null
}
</script>

<template>
  <div class="relative h-full">
    <div ref="room" class="h-full overflow-auto">
      <div
        ref="drawing"
        class="relative mx-auto"
        :style="{ width: `${size.width}px`, height: `${size.height}px`, zoom }"
        role="group"
        aria-label="Steps"
      >
        <svg class="absolute inset-0" :width="size.width" :height="size.height" aria-hidden="true">
          <path
            v-for="edge in edges"
            :key="`${edge.from} ${edge.way}`"
            :d="edge.path"
            fill="none"
            :stroke-width="edge.width"
            stroke-linejoin="round"
            :stroke="edge.lane === 0 ? 'var(--canvas-500)' : 'var(--way)'"
          />
          <g v-for="back in backs" :key="`back ${back.id}`">
            <path
              :d="back.path"
              fill="none"
              stroke-width="2"
              stroke-dasharray="5 4"
              stroke="var(--way)"
            />
            <path :d="back.tip" fill="var(--way)" />
          </g>
        </svg>
        <template v-for="edge in edges" :key="`${edge.from} ${edge.way}`">
          <component
            :is="edge.leads ? NuxtLink : 'span'"
            v-if="edge.words"
            :to="edge.leads"
            class="absolute max-w-[200px] -translate-y-1/2 truncate rounded bg-paper px-1 text-[12px] font-semibold"
            :class="[
              edge.lane === 0 ? 'text-canvas-600' : 'text-[var(--way)]',
              edge.leads && 'leading-6 underline',
            ]"
            :style="edge.label"
            >{{ edge.words }}</component
          >
          <AddStep
            v-if="canDraw"
            data-no-picture
            class="!absolute z-10 -translate-x-1/2 -translate-y-1/2 has-[[aria-expanded=true]]:z-30"
            :style="{ left: `${edge.at.left}px`, top: `${edge.at.top}px` }"
            :where="edge.where"
            :held="held"
            @put="store.putHeld(spotOf(edge))"
            @add="store.addStep(spotOf(edge), $event)"
          />
          <span
            v-if="canDraw && dragged !== null"
            class="absolute z-20 flex h-[84px] w-[200px] -translate-x-1/2 -translate-y-1/2 items-center"
            :style="{ left: `${edge.at.left}px`, top: `${edge.at.top}px` }"
            data-no-picture
            :data-spot="edge.where"
            @dragover.prevent="over = keyOf(edge)"
            @dragleave="over === keyOf(edge) && (over = null)"
            @drop.prevent="drop($event, edge)"
            ><span
              v-if="over === keyOf(edge)"
              class="pointer-events-none w-full border-t-[3px] border-dashed border-brass-500"
          /></span>
        </template>
        <template v-for="stop in stops" :key="stop.id">
          <component
            :is="leads(stop.id) ? NuxtLink : 'span'"
            v-if="stop.count"
            class="absolute -translate-y-1/2 rounded border border-line bg-sheet px-2 py-0.5 text-right text-[12px] whitespace-nowrap text-ink-700"
            :class="leads(stop.id) && 'underline hover:border-brass-500'"
            :style="{ right: `${size.width - stop.at.left + 26}px`, top: `${stop.at.top}px` }"
            :to="leads(stop.id)"
            >{{ stop.count }}</component
          >
          <StepIcon
            :kind="stop.kind"
            class="pointer-events-none absolute -translate-x-1/2 -translate-y-1/2"
            :style="{ left: `${stop.at.left}px`, top: `${stop.at.top}px` }"
          />
          <component
            :is="stop.id === 'finish' ? 'span' : 'button'"
            :type="stop.id === 'finish' ? undefined : 'button'"
            class="absolute -translate-y-1/2 rounded-md border border-dashed px-2 py-1 text-left"
            :class="
              store.chosen === stop.id ? 'border-brass-500 bg-brass-100' : 'border-transparent'
            "
            :style="{
              left: `${stop.at.left + 20}px`,
              top: `${stop.at.top}px`,
              width: `${WORDS}px`,
            }"
            :aria-pressed="stop.id === 'finish' ? undefined : store.chosen === stop.id"
            :title="stop.note ? `${stop.words}: ${stop.note}` : stop.words"
            :draggable="canDraw && stop.id in of.map.steps"
            @dragstart="dragStart($event, stop.id)"
            @dragend="dragEnd"
            @click="stop.id !== 'finish' && (store.chosen = stop.id)"
          >
            <span class="block truncate font-semibold">{{ stop.words }}</span>
            <span v-if="stop.about" class="muted small block truncate">{{ stop.about }}</span>
            <span v-if="stop.note" class="small block truncate text-ink-700 italic">{{
              stop.note
            }}</span>
          </component>
        </template>
      </div>
      <p
        v-if="held && canDraw"
        class="floats fixed bottom-4 left-1/2 z-40 flex max-w-[460px] -translate-x-1/2 items-center gap-3 rounded-md border border-line bg-sheet px-3 py-2"
        role="status"
      >
        <span class="truncate"
          ><b>{{ held }}</b> {{ store.held!.moves ? 'moves' : 'is copied' }}:
          {{
            dragged === null ? 'choose where, with +.' : 'let it go on a line; with Ctrl a copy.'
          }}</span
        >
        <button
          v-if="dragged === null"
          type="button"
          class="btn btn-sm flex-none"
          @click="store.held = null"
        >
          Never mind
        </button>
      </p>
      <TemplateChoice v-if="canDraw && isEmpty" />
    </div>
    <div
      v-if="!isEmpty"
      class="absolute right-4 bottom-3 z-20 flex gap-1.5"
      role="group"
      aria-label="Size of the map"
    >
      <button class="btn btn-sm" aria-label="Smaller" :disabled="!smaller" @click="zoom = smaller!">
        −
      </button>
      <button
        class="btn btn-sm min-w-12"
        :aria-label="`${Math.round(zoom * 100)}%: as large as it is`"
        @click="zoom = 1"
      >
        {{ Math.round(zoom * 100) }}%
      </button>
      <button class="btn btn-sm" aria-label="Larger" :disabled="!larger" @click="zoom = larger!">
        +
      </button>
      <button class="btn btn-sm" @click="fit">Fit</button>
      <button
        class="btn btn-sm"
        :class="byPeople && 'bg-canvas-200'"
        :aria-pressed="byPeople"
        title="As wide as many went by them"
        @click="byPeople = !byPeople"
      >
        Lines by people
      </button>
    </div>
  </div>
</template>
