<script setup lang="ts">
import { area, curveMonotoneX, line, max, scaleLinear } from 'd3'
import { tierFrom, tiers } from '~~/core/standing'

/** Engagement over the last twelve months, with where the tiers begin. */
const props = defineProps<{ values: number[] }>()
const top = computed(() => Math.max(max(props.values) ?? 0, tierFrom.warm * 1.2))
const y = computed(() => scaleLinear([0, top.value], [74, 6]))
const x = scaleLinear([0, 11], [0, 300])
const path = computed(() =>
  line<number>(
    (_, i) => x(i),
    (n) => y.value(n),
  ).curve(curveMonotoneX)(props.values)!,
)
const below = computed(() =>
  area<number>(
    (_, i) => x(i),
    74,
    (n) => y.value(n),
  ).curve(curveMonotoneX)(props.values)!,
)
const lines = computed(() =>
  tiers.filter((tier) => tier !== 'silent' && tierFrom[tier] <= top.value),
)
</script>

<template>
  <svg
    viewBox="0 0 360 92"
    class="w-full max-w-[420px]"
    role="img"
    :aria-label="`Engagement over twelve months, now ${(values.at(-1) ?? 0).toFixed(1)}`"
  >
    <g v-for="tier in lines" :key="tier">
      <line x1="0" x2="300" :y1="y(tierFrom[tier])" :y2="y(tierFrom[tier])" stroke="var(--line)" />
      <text x="306" :y="y(tierFrom[tier]) + 4" class="fill-ink-500 text-[11px]">{{ tier }}</text>
    </g>
    <path :d="below" fill="var(--canvas-100)" />
    <path :d="path" fill="none" stroke="var(--canvas-700)" stroke-width="2" />
    <text x="0" y="89" class="fill-ink-500 text-[11px]">a year ago</text>
    <text x="300" y="89" text-anchor="end" class="fill-ink-500 text-[11px]">now</text>
  </svg>
</template>
