<script setup lang="ts">
import { max, scaleLinear } from 'd3'
import type { Results } from './results'

/** This mailing among the last ones to the same list: each a line, this one the dot. */
const props = defineProps<{ results: Results }>()
const measures = computed(() =>
  (
    [
      ['Opened', 'opened'],
      ['Clicked', 'clicked'],
      ['Left', 'left'],
    ] as const
  ).map(([name, key]) => {
    const own = props.results.rates[key].rate
    const others = props.results.earlier.map((one) => one[key])
    const top = Math.max(own, max(others) ?? 0, 0.0001) * 1.08
    const x = scaleLinear([0, top], [0, 430])
    const better = others.filter((other) => (key === 'left' ? other < own : other > own)).length
    return {
      name,
      own,
      x: x(own),
      marks: others.map((other) => x(other)),
      rank: others.length
        ? rank(
            better + 1,
            others.length + 1,
            key === 'left' ? ['fewest', 'most'] : ['best', 'lowest'],
          )
        : 'nothing to compare with yet',
    }
  }),
)
function rank(place: number, of: number, [first, last]: readonly [string, string]) {
  if (place === 1) return `${first} of ${of}`
  if (place === of) return `${last} of ${of}`
  return Math.abs(place - (of + 1) / 2) < 1 ? 'middle' : `${ordinal(place)} of ${of}`
}
</script>

<template>
  <svg
    viewBox="-8 0 460 150"
    class="mt-2 w-full"
    role="img"
    :aria-label="
      measures.map(({ name, own, rank }) => `${name} ${percent(own)}, ${rank}`).join('; ')
    "
  >
    <g v-for="(measure, i) in measures" :key="measure.name" :transform="`translate(0 ${i * 50})`">
      <text y="13" font-size="12.5" fill="#3c433a">{{ measure.name }}</text>
      <line x1="0" x2="440" y1="31" y2="31" stroke="#dfe3d9" />
      <line
        v-for="(x, k) in measure.marks"
        :key="k"
        :x1="x"
        :x2="x"
        y1="22"
        y2="40"
        stroke="#a7aea3"
        stroke-width="2"
      />
      <circle :cx="measure.x" cy="31" r="6.5" fill="#c08a1e" stroke="#fff" stroke-width="1.5" />
      <text
        :x="Math.max(70, Math.min(measure.x, 330) + 12)"
        y="14"
        font-size="12"
        font-weight="600"
        fill="#1a1e18"
      >
        {{ percent(measure.own) }} · {{ measure.rank }}
      </text>
    </g>
  </svg>
</template>
