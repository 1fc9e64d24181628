<script setup lang="ts">
import { max, sum } from 'd3'
import { outlyingDays } from './outlying-days'
import type { TodaySheet } from '~~/core/results'

const props = defineProps<{ people: TodaySheet['people'] }>()
const byDay = (rows: { day: number; n: number }[]) => {
  const counts = new Array<number>(props.people.days).fill(0)
  for (const { day, n } of rows) if (day >= 0 && day < counts.length) counts[day]! += n
  return counts
}
const joined = computed(() => byDay(props.people.growth.joined))
const gone = computed(() =>
  byDay(props.people.growth.left).map((n, i) => n + byDay(props.people.growth.aside)[i]!),
)
const total = (kind: 'joined' | 'left' | 'aside') => sum(props.people.growth[kind], ({ n }) => n)
/** How wide a day is, and where the middle of the days is. */
const DAY = 12.3
const HALF = 15
/** Bars of days that would flatten all others are cut, and say their numbers. */
const cut = computed(() => outlyingDays(joined.value))
/** Where the numbers of the cut bars find room: before them, behind them, or between. */
const room = computed(() => {
  const [first = 0, last = 0] = [cut.value[0], cut.value.at(-1)]
  if (first > HALF) return { x: first * DAY - 4, anchor: 'end' }
  return { x: (last <= HALF ? last : first) * DAY + DAY, anchor: 'start' }
})
const cutWords = computed(() => {
  const numbers = cut.value.map((i) => count(joined.value[i]!))
  return numbers.length === 1
    ? `${numbers[0]} on one day`
    : `${new Intl.ListFormat('en-GB').format(numbers)} on ${numbers.length} days`
})
/** One scale for both sides: 48 px above the line, 28 below. */
const scale = computed(() => {
  const most = max(joined.value, (n, i) => (cut.value.includes(i) ? 0 : n)) ?? 1
  return Math.min(
    (cut.value.length ? 30 : 48) / Math.max(1, most),
    28 / Math.max(1, max(gone.value) ?? 1),
  )
})
const up = (n: number) => Math.min(n * scale.value, 48)
</script>

<template>
  <div class="sheet">
    <div class="sheet-head">
      <h2>The list, 30 days</h2>
      <span
        ><b>{{ count(people.count) }}</b>
        <span class="muted">people · +{{ count(total('joined')) }}</span></span
      >
    </div>
    <div class="px-3.5 pt-2.5 pb-2">
      <svg
        viewBox="0 0 370 84"
        class="w-full"
        role="img"
        :aria-label="`${total('joined')} joined, ${total('left')} unsubscribed, ${total('aside')} were suppressed in 30 days`"
      >
        <g v-for="(n, i) in joined" :key="i">
          <rect :x="i * DAY" :y="52 - up(n)" width="9" :height="up(n)" fill="#66752b" />
          <rect :x="i * DAY" y="54" width="9" :height="up(gone[i]!)" fill="#b4573c" />
        </g>
        <path
          v-for="i in cut"
          :key="`cut${i}`"
          :d="`M${i * DAY - 2} 17l6.5 -4 6.5 4 v-4l-6.5 -4 -6.5 4z`"
          fill="#fff"
        />
        <text
          v-if="cut.length"
          :x="room.x"
          y="13"
          :text-anchor="room.anchor"
          class="fill-ink-700 text-[10px]"
        >
          {{ cutWords }}
        </text>
        <line x1="0" x2="370" y1="53" y2="53" stroke="#3c433a" />
      </svg>
      <p class="small muted">
        <span class="text-canvas-700">■</span> joined {{ count(total('joined')) }} &nbsp;<span
          class="text-[#b4573c]"
          >■</span
        >
        unsubscribed {{ count(total('left')) }}, suppressed {{ count(total('aside')) }}
      </p>
    </div>
  </div>
</template>
