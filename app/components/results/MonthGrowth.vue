<script setup lang="ts">
import { max, scaleLinear, sum } from 'd3'

/** Who joined in each month, above the line, and who unsubscribed or was suppressed, below it; one scale for both. */
const props = defineProps<{
  growth: { month: string; joined: number; gone: number }[]
  monthName: (month: string) => string
}>()
const STEP = 34
const most = computed(() => ({
  up: Math.max(1, max(props.growth, ({ joined }) => joined) ?? 1),
  down: Math.max(1, max(props.growth, ({ gone }) => gone) ?? 1),
}))
const size = computed(() => scaleLinear([0, most.value.up + most.value.down], [0, 118]))
const base = computed(() => 14 + size.value(most.value.up))
const total = (key: 'joined' | 'gone') => sum(props.growth, (one) => one[key])
</script>

<template>
  <svg
    viewBox="0 0 450 176"
    class="mt-2 w-full"
    role="img"
    :aria-label="
      growth
        .map(
          ({ month, joined, gone }) =>
            `${monthName(month)}: ${count(joined)} joined, ${count(gone)} gone`,
        )
        .join('; ')
    "
  >
    <g v-for="(one, i) in growth" :key="one.month" :transform="`translate(${20 + i * STEP} 0)`">
      <rect width="22" :y="base - size(one.joined)" :height="size(one.joined)" fill="#98aa66" />
      <text
        v-if="one.joined"
        x="11"
        :y="base - size(one.joined) - 3"
        text-anchor="middle"
        font-size="10"
        fill="#3c433a"
      >
        {{ count(one.joined) }}
      </text>
      <rect width="22" :y="base" :height="size(one.gone)" fill="#c58a6d" />
      <text x="11" y="156" text-anchor="middle" font-size="11" fill="#5c665a">
        {{ monthName(one.month) }}
      </text>
    </g>
    <line x1="14" x2="440" :y1="base" :y2="base" stroke="#3c433a" />
    <text x="20" y="172" font-size="11.5" fill="#3c433a">
      {{ count(total('joined')) }} joined, {{ count(total('gone')) }} unsubscribed or were
      suppressed
    </text>
  </svg>
</template>
