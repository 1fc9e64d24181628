<script setup lang="ts">
import { totalOf } from '~~/core/counting'
import { linkHorizontal, scaleLinear } from 'd3'
import type { Totals } from '~~/core/results'

/** How far people got: delivered, opened, clicked. Bars start at zero. */
const props = defineProps<{ totals: Totals }>()
const steps = computed(() => {
  const delivered = totalOf(props.totals, 'delivered')
  return [
    { name: 'Recipients', n: props.totals.recipients - props.totals.dropped, colour: '#d8e0bd' },
    { name: 'Delivered', n: delivered, colour: '#bac893' },
    { name: 'Opened', n: props.totals.opened, colour: '#98aa66' },
    { name: 'Clicked', n: props.totals.clicked, colour: '#66752b' },
  ]
})
const HEIGHT = 130
const BASE = 156
const up = computed(() => scaleLinear([0, Math.max(1, steps.value[0]!.n)], [0, HEIGHT]))
const bar = (n: number) => (n > 0 ? Math.max(3, up.value(n)) : 0)
const curve = linkHorizontal<unknown, [number, number]>()
const flow = (i: number) => {
  const [x1, x2] = [i * 112 + 56, (i + 1) * 112]
  const top = curve({
    source: [x1, BASE - bar(steps.value[i]!.n)],
    target: [x2, BASE - bar(steps.value[i + 1]!.n)],
  })
  return `${top}V${BASE}H${x1}Z`
}
const told = computed(() => steps.value.map(({ name, n }) => `${name} ${count(n)}`).join(', '))
</script>

<template>
  <svg viewBox="0 0 420 182" class="mt-2 w-full" role="img" :aria-label="told">
    <g v-for="(step, i) in steps" :key="step.name">
      <path v-if="i < steps.length - 1" :d="flow(i)" :fill="step.colour" opacity="0.3" />
      <rect
        :x="i * 112"
        :y="BASE - bar(step.n)"
        width="56"
        :height="bar(step.n)"
        :fill="step.colour"
      />
      <text
        :x="i * 112"
        :y="BASE - bar(step.n) - 6"
        font-size="12.5"
        font-weight="600"
        fill="#1a1e18"
      >
        {{ count(step.n) }}
      </text>
      <text :x="i * 112" y="174" font-size="12" fill="#5c665a">{{ step.name }}</text>
    </g>
    <line x1="0" x2="400" :y1="BASE" :y2="BASE" stroke="#3c433a" />
  </svg>
</template>
