<script setup lang="ts">
import { max, scaleSqrt } from 'd3'

/** When somebody reads: a square for each hour of each weekday, the larger the more often. */
const props = defineProps<{ hours: number[][] }>()
const days = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun']
const most = computed(() => max(props.hours.flat()) || 1)
const side = computed(() => scaleSqrt([0, most.value], [0, 12]))
const total = computed(() => props.hours.flat().reduce((sum, n) => sum + n, 0))
const best = computed(() => {
  const day = props.hours.findIndex((row) => row.includes(most.value))
  return { day: days[day], hour: props.hours[day]?.indexOf(most.value) ?? 0 }
})
</script>

<template>
  <p v-if="total === 0" class="muted">Nothing was read yet.</p>
  <template v-else>
    <svg
      viewBox="0 0 380 122"
      class="w-full max-w-[420px]"
      role="img"
      :aria-label="`Reads most often on ${best.day} around ${best.hour}:00`"
    >
      <g v-for="(row, day) in hours" :key="day">
        <text x="0" :y="15 + day * 14" class="fill-ink-500 text-[10px]">{{ days[day] }}</text>
        <template v-for="(n, hour) in row" :key="hour">
          <rect
            :x="32 + hour * 14.4"
            :y="4 + day * 14"
            width="13"
            height="13"
            fill="var(--canvas-50)"
          />
          <rect
            v-if="n"
            :x="32 + hour * 14.4 + 6.5 - side(n) / 2"
            :y="10.5 + day * 14 - side(n) / 2"
            :width="side(n)"
            :height="side(n)"
            fill="var(--canvas-600)"
          />
        </template>
      </g>
      <text
        v-for="hour in [0, 6, 12, 18]"
        :key="hour"
        :x="32 + hour * 14.4"
        y="116"
        class="fill-ink-500 text-[10px]"
      >
        {{ hour }}:00
      </text>
    </svg>
    <p class="muted small">
      Most often {{ best.day }} around {{ best.hour }}:00; {{ count(total) }} letters read.
    </p>
  </template>
</template>
