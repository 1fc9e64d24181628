<script setup lang="ts">
import { max, scaleLinear } from 'd3'
import type { Interval } from '~~/core/results'

/** Shares that opened and clicked in each month, from zero, with their intervals. */
const props = defineProps<{
  months: {
    month: string
    mailings: number
    delivered: number
    ofSequences: number
    opened: Interval
    clicked: Interval
  }[]
  monthName: (month: string) => string
}>()
const STEP = 34
const BASE = 140
const up = computed(() =>
  scaleLinear([0, (max(props.months, (one) => one.opened.high) || 0.1) * 1.05], [BASE, 14]),
)
const marks = computed(() => up.value.ticks(4))
const series = [
  { key: 'opened', name: 'opened', colour: '#66752b' },
  { key: 'clicked', name: 'clicked', colour: '#37628f' },
] as const
const told = computed(() =>
  props.months
    .filter(({ delivered }) => delivered > 0)
    .map(
      ({ month, opened, clicked }) =>
        `${props.monthName(month)}: ${percent(opened.rate)} opened, ${percent(clicked.rate)} clicked`,
    )
    .join('; '),
)
</script>

<template>
  <svg viewBox="0 0 450 176" class="mt-2 w-full" role="img" :aria-label="told">
    <g v-for="mark in marks" :key="mark">
      <line x1="32" x2="446" :y1="up(mark)" :y2="up(mark)" stroke="#eceee7" />
      <text x="26" :y="up(mark) + 4" text-anchor="end" font-size="11" fill="#5c665a">
        {{ Math.round(mark * 100) }}%
      </text>
    </g>
    <g v-for="(one, i) in months" :key="one.month" :transform="`translate(${44 + i * STEP} 0)`">
      <template v-if="one.delivered">
        <g v-for="line in series" :key="line.key">
          <line
            x1="8"
            x2="8"
            :y1="up(one[line.key].low)"
            :y2="up(one[line.key].high)"
            :stroke="line.colour"
            stroke-width="6"
            opacity="0.35"
          />
          <circle cx="8" :cy="up(one[line.key].rate)" r="4" :fill="line.colour" />
        </g>
      </template>
      <text x="8" :y="BASE + 16" text-anchor="middle" font-size="11" fill="#5c665a">
        {{ monthName(one.month) }}
      </text>
    </g>
    <line x1="32" x2="446" :y1="BASE" :y2="BASE" stroke="#3c433a" />
    <g v-for="(line, i) in series" :key="line.key" :transform="`translate(${32 + i * 70} 168)`">
      <circle cx="4" cy="0" r="4" :fill="line.colour" />
      <text x="13" y="4" font-size="11.5" fill="#3c433a">{{ line.name }}</text>
    </g>
    <text x="180" y="172" font-size="11.5" fill="#5c665a">
      of all delivered; bars are 95% intervals
    </text>
  </svg>
</template>
