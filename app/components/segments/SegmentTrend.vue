<script setup lang="ts">
import { dateText } from '~~/core/time'
import { area, line, max, min, scaleLinear } from 'd3'

/** A segment's size day by day, who came and went, and because of which line. */
interface Trend {
  days: { day: string; size: number; came: number; went: number }[]
  reasons: { came: boolean; why: string | null; n: number }[]
  people: { id: number; name: string; came: boolean; why: string | null }[]
}
const props = defineProps<{
  id: number
  /** The rule that is shown is not the one on file, whose trend this is. */
  ofAnotherRule?: boolean
}>()
const { answer: trend } = useAnswer<Trend>(() => `/api/segments/${props.id}/trend`)
const [WIDTH, HEIGHT, MOVES] = [400, 90, 34]
const days = computed(() => trend.value?.days ?? [])
const x = computed(() => scaleLinear([0, Math.max(1, days.value.length - 1)], [4, WIDTH - 4]))
/** From a little under the smallest to a little over the largest: what changed is what is looked for. */
const y = computed(() => {
  const sizes = days.value.map(({ size }) => size)
  const [low, high] = [min(sizes) ?? 0, max(sizes) ?? 1]
  const room = Math.max(1, (high - low) * 0.2)
  return scaleLinear([Math.max(0, low - room), high + room], [HEIGHT, 4])
})
const moved = computed(() =>
  scaleLinear(
    [0, Math.max(1, max(days.value, ({ came, went }) => Math.max(came, went)) ?? 1)],
    [0, MOVES / 2],
  ),
)
const points = computed(() =>
  days.value.map(({ size }, i): [number, number] => [x.value(i), y.value(size)]),
)
const outline = computed(() => line()(points.value) ?? '')
const filled = computed(
  () =>
    area<[number, number]>()
      .x(([at]) => at)
      .y0(HEIGHT)
      .y1(([, top]) => top)(points.value) ?? '',
)
const first = computed(() => days.value[0])
const last = computed(() => days.value.at(-1))
const words = (why: string | null) => why ?? 'a value or a tag was changed'
const names = (came: boolean, why: string | null) =>
  (trend.value?.people ?? []).filter((one) => one.came === came && one.why === why)
</script>

<template>
  <section class="sheet" :class="ofAnotherRule && 'grayscale'" aria-label="Day by day">
    <div class="sheet-head">
      <h2>Day by day</h2>
      <span v-if="last && days.length > 1" class="small muted">
        noted {{ count(first!.size) }} → <b class="text-ink-900">{{ count(last.size) }}</b>
      </span>
    </div>
    <p v-if="ofAnotherRule" class="muted small px-4 pt-3" role="status">
      This is of the rules as they were saved, not of those shown.
    </p>
    <p v-if="days.length < 2" class="muted small p-4">
      Its size is noted once a day from now on: who came, who went, and because of which line.
    </p>
    <template v-else>
      <svg
        :viewBox="`0 0 ${WIDTH} ${HEIGHT + MOVES + 18}`"
        class="w-full px-3 pt-3"
        role="img"
        :aria-label="`${count(first!.size)} people on ${first!.day}, ${count(last!.size)} on ${last!.day}`"
      >
        <path :d="filled" fill="#e8edd9" />
        <path :d="outline" fill="none" stroke="#5f7030" stroke-width="2" />
        <g :transform="`translate(0 ${HEIGHT + 4 + MOVES / 2})`">
          <line x1="0" :x2="WIDTH" y1="0" y2="0" stroke="#cfd4c9" />
          <g v-for="(day, i) in days" :key="day.day">
            <title>{{ dateText(day.day) }}: {{ day.came }} came, {{ day.went }} went</title>
            <rect
              :x="x(i) - 3"
              :y="-moved(day.came)"
              width="6"
              :height="moved(day.came)"
              fill="#6b7c36"
            />
            <rect :x="x(i) - 3" y="0" width="6" :height="moved(day.went)" fill="#b6573c" />
          </g>
        </g>
        <text x="0" :y="HEIGHT + MOVES + 16" font-size="11" fill="#5b6459">
          {{ dateText(first!.day) }}
        </text>
        <text :x="WIDTH" :y="HEIGHT + MOVES + 16" font-size="11" text-anchor="end" fill="#5b6459">
          {{ dateText(last!.day) }}
        </text>
      </svg>
      <p class="small muted px-4">
        <span class="text-canvas-700">■</span> came <span class="text-bad-600">■</span> went; why,
        in the last two weeks:
      </p>
      <ul class="small m-0 list-none px-4 pt-1 pb-3">
        <li v-for="one in trend!.reasons" :key="`${one.came}${one.why}`" class="py-1">
          <b>{{ one.came ? '+' : '−' }}{{ count(one.n) }}</b> {{ words(one.why) }}
          <span class="muted block">
            <template v-for="(person, i) in names(one.came, one.why)" :key="person.id"
              ><template v-if="i">, </template
              ><NuxtLink class="link" :to="`/people/${person.id}`">{{
                person.name
              }}</NuxtLink></template
            >
          </span>
        </li>
      </ul>
    </template>
  </section>
</template>
