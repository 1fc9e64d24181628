<script setup lang="ts">
import { area, curveBasis, scaleLinear } from 'd3'
import { variantName } from '~~/core/dispatch'
import { CLEAR } from '~~/core/experiments'
import type { TestResults } from '~~/core/experiments'

/** How likely each value of each variant is, and what that means: who leads, by how much, how surely. */
const props = defineProps<{ test: TestResults }>()
const session = useSession()
const { dayAndTime } = useTimes()
const colors = ['#37628f', '#66752b', '#9c6410', '#7a3f73', '#8f3a22']
const WIDE = 440
const HIGH = 120
const x = computed(() => {
  const { x: values } = props.test.curves
  return scaleLinear([values[0]!, values.at(-1)!], [10, WIDE - 10])
})
const drawn = computed(() => {
  const { x: values, y } = props.test.curves
  const up = scaleLinear([0, Math.max(...y.flat())], [HIGH, 12])
  const shape = area<number>()
    .x((_, i) => x.value(values[i]!))
    .y0(HIGH)
    .y1((density) => up(density))
    .curve(curveBasis)
  return y.map((curve) => shape(curve) ?? '')
})
const shown = (value: number) =>
  props.test.measure === 'money'
    ? money(Math.round(value), session.account?.currency ?? 'GBP')
    : percent(value)
const leader = computed(() => props.test.variants[props.test.leader]!)
const points = (share: number) => `${share >= 0 ? '+' : '−'}${Math.abs(share * 100).toFixed(1)}`
const verdict = computed(() => {
  const { test } = props
  if (test.variants.every(({ value }) => value === 0)) return 'Nothing to tell them apart yet.'
  const sure = percent(leader.value.best)
  const lead = test.clear
    ? `${leader.value.name} is the best with a probability of ${sure}.`
    : `${leader.value.name} leads, the best with a probability of ${sure}; ${Math.round(CLEAR * 100)}% would be clear.`
  const worth = test.ahead
    ? ` Against the next: ${points(test.ahead.low)} to ${points(test.ahead.high)} points.`
    : ''
  return lead + worth
})
const decision = computed(() => {
  const { winner, decidedAt, decidedBy, variants } = props.test
  return winner === null
    ? null
    : `The rest got ${variants[winner]?.name ?? ''}, decided ${dayAndTime(decidedAt!)} by ${decidedBy}.`
})
/** What the choice was worth: what those who were not in the test brought more than by the best of the others, as far as the figures of then tell. */
const decided = computed(() => {
  const { winner, decidedOn, variants } = props.test
  const chosen = decidedOn?.variants.find(({ variant }) => variant === winner)
  if (!decidedOn || !chosen) return null
  const others = decidedOn.variants.filter((one) => one !== chosen)
  const next = Math.max(...others.map(({ value }) => value))
  const lines = decidedOn.variants.map((one) => ({
    ...one,
    name: variantName(one.variant),
    today: variants.find(({ variant }) => variant === one.variant)?.value ?? null,
  }))
  return { lines, chosen, more: chosen.value - next }
})
const difference = (value: number) =>
  props.test.measure === 'money'
    ? `${value < 0 ? '−' : ''}${shown(Math.abs(value))} for each person`
    : `${(Math.abs(value) * 100).toFixed(1)} points`
const measures = {
  open: 'opens',
  click: 'clicks',
  goal: 'the goal',
  money: 'money for each person',
}
const delivered = computed(() => props.test.variants.reduce((sum, one) => sum + one.delivered, 0))
</script>

<template>
  <p class="small muted">By {{ measures[test.measure] }}, of {{ people(delivered) }}</p>
  <svg :viewBox="`0 0 ${WIDE} 146`" class="mt-1 w-full" role="img" :aria-label="verdict">
    <path
      v-for="(path, i) in drawn"
      :key="i"
      :d="path"
      :fill="colors[i]"
      fill-opacity="0.38"
      :stroke="colors[i]"
      stroke-width="1"
    />
    <line x1="0" :x2="WIDE" :y1="HIGH" :y2="HIGH" stroke="#3c433a" />
    <text
      v-for="tick in x.ticks(5).filter((one) => x(one) > 18 && x(one) < WIDE - 18)"
      :key="tick"
      :x="x(tick)"
      y="138"
      font-size="12"
      fill="#5c665a"
      text-anchor="middle"
    >
      {{ shown(tick) }}
    </text>
  </svg>
  <table class="mt-1 w-full text-[12.5px]">
    <thead>
      <tr class="muted">
        <th scope="col" colspan="2"><span class="sr-only">Variant</span></th>
        <th scope="col" class="num pl-3 font-normal" colspan="2">
          {{ test.measure === 'money' ? 'per recipient' : 'share, 95% interval' }}
        </th>
        <th scope="col" class="num pl-3 font-normal whitespace-nowrap">chance to be best</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(one, i) in test.variants" :key="one.name" class="border-t border-line-soft">
        <th scope="row" class="py-1 pr-2 text-left whitespace-nowrap">
          <span :style="{ color: colors[i] }" aria-hidden="true">■</span> {{ one.name }}
        </th>
        <td class="max-w-[210px] truncate">{{ one.words }}</td>
        <td class="num pl-3 font-semibold" :colspan="test.measure === 'money' ? 2 : 1">
          {{ shown(one.value) }}
        </td>
        <td v-if="test.measure !== 'money'" class="num muted pl-2 whitespace-nowrap">
          {{ percent(one.low) }} to {{ percent(one.high) }}
        </td>
        <td class="num muted pl-3 whitespace-nowrap">{{ percent(one.best) }}</td>
      </tr>
    </tbody>
  </table>
  <p class="mt-2">{{ verdict }}</p>
  <p v-if="test.goalOpenUntil !== null" class="small mt-1" role="status">
    <MarkDot level="caution" class="mr-1.5 inline" />
    So far: the goal can be reached until {{ dayAndTime(test.goalOpenUntil) }}. Who decides before
    then decides on a part of it.
  </p>
  <template v-if="decision">
    <p class="muted">{{ decision }}</p>
    <template v-if="decided">
      <table class="mt-1 w-full text-[12.5px]">
        <caption class="sr-only">
          What it was decided on, and how it stands today
        </caption>
        <thead>
          <tr class="muted">
            <th scope="col"><span class="sr-only">Variant</span></th>
            <th scope="col" class="num pl-3 font-normal">when decided</th>
            <th scope="col" class="num pl-3 font-normal">chance to be best</th>
            <th scope="col" class="num pl-3 font-normal">expected loss</th>
            <th scope="col" class="num pl-3 font-normal">today</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in decided.lines" :key="one.variant" class="border-t border-line-soft">
            <th scope="row" class="py-1 pr-2 text-left">{{ one.name }}</th>
            <td class="num pl-3">{{ shown(one.value) }} of {{ count(one.of) }}</td>
            <td class="num muted pl-3">{{ percent(one.best) }}</td>
            <td class="num muted pl-3">{{ difference(one.loss) }}</td>
            <td class="num pl-3">{{ one.today === null ? '—' : shown(one.today) }}</td>
          </tr>
        </tbody>
      </table>
      <p class="muted mt-1">
        By the figures of then the choice was worth {{ difference(decided.more)
        }}{{ decided.more < 0 ? ' less' : '' }} against the best of the others; what it may have
        cost, on average, is {{ difference(decided.chosen.loss) }}.
      </p>
    </template>
  </template>
</template>
