<script setup lang="ts">
import type { GoalResults } from '~~/core/sequences'
import { bounds, points, reckonedMoney } from './figures'
import { goalWords, happeningWords } from './words'

/** How many reached a goal, beside those held out, and what it brought. */
const props = defineProps<{
  goal: GoalResults
  /** Within so many days as is asked; the goal may be reached only within fewer. */
  days: number
  /** Whether it is one of several. */
  isAmongOthers: boolean
}>()
const of = computed(() => useSequence().asItRuns!)
const currency = computed(() => useSession().account?.currency ?? 'GBP')
const inMoney = (minor: number) => reckonedMoney(minor, currency.value)
const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1)
const step = computed(() => {
  const found = props.goal.step === null ? undefined : of.value.map.steps[props.goal.step]
  return found?.kind === 'goal' ? found : null
})
const worth = computed(() => step.value?.worth)
const named = computed(() => {
  if (!props.isAmongOthers || !step.value) return happeningWords(props.goal.when, of.value)
  return goalWords(step.value, of.value)
})
</script>

<template>
  <p v-if="goal.led.of === 0" class="muted small mt-2">
    Nobody came in {{ goal.days }} days ago or longer.
  </p>
  <dl
    v-else
    class="mt-2 grid grid-cols-[1fr_auto] gap-x-3 gap-y-1.5"
    :class="isAmongOthers && 'border-t border-line-soft pt-2'"
  >
    <dt>
      {{ capital(named) }}
      <span class="muted small block"
        >of {{ people(goal.led.of) }} led through it<template v-if="goal.days < days"
          >, within {{ goal.days }} days</template
        ></span
      >
    </dt>
    <dd class="text-right">
      <b>{{ percent(goal.led.reached.rate) }}</b><span class="muted small block">{{
        bounds(goal.led.reached, percent)
      }}</span>
    </dd>
    <template v-if="goal.heldOut">
      <dt>
        Held out by lot<span class="muted small block">{{ people(goal.heldOut.of) }}</span>
      </dt>
      <dd class="text-right">
        <b>{{ percent(goal.heldOut.lift.heldOut) }}</b>
      </dd>
      <dt>Lift, in points</dt>
      <dd class="text-right">
        <b>{{ points(goal.heldOut.lift.difference) }}</b><span class="muted small block">{{
          bounds(goal.heldOut.lift, points)
        }}</span>
      </dd>
      <dt>Money that would not have come</dt>
      <dd class="text-right">
        <b>{{ inMoney(goal.heldOut.money.rate) }}</b><span class="muted small block">{{
          bounds(goal.heldOut.money, inMoney)
        }}</span>
      </dd>
    </template>
    <template v-else>
      <dt>
        {{
          worth === undefined ? 'Money by their orders' : `Money, at ${money(worth, currency)} each`
        }}
      </dt>
      <dd class="text-right">
        <b>{{ inMoney(goal.led.money) }}</b>
      </dd>
    </template>
  </dl>
  <p v-if="goal.led.of && !goal.heldOut" class="muted small mt-1">
    {{
      goal.isForAll
        ? 'Nobody is held out, so nobody can say what would have come without it.'
        : 'Only who is led through it can reach this, so it is not compared with anybody held out.'
    }}
  </p>
</template>
