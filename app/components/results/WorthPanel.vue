<script setup lang="ts">
import type { WorthResults } from '~~/core/experiments'

/** What the mailing brought, and what of it would not have come without it. */
const props = defineProps<{ worth: WorthResults }>()
const session = useSession()
const currency = computed(() => session.account?.currency ?? 'GBP')
const goalWords = computed(() => {
  const { goal } = props.worth
  if (!goal) return ''
  const page = goal.what.replace(/^https?:\/\//, '')
  const segment = `“${props.worth.segment ?? 'a segment that is gone'}”`
  const did = {
    order: 'ordered',
    event: `did “${goal.what}”`,
    link: `visited ${page}`,
    enters: `came into ${segment}`,
    leaves: `left ${segment}`,
  }[goal.is]
  return `${did} within ${several(goal.days, 'day', 'days')}`
})
const { dayAndTime } = useTimes()
/** More may still reach the goal. */
const soFar = computed(() => props.worth.openUntil !== null)
const points = (share: number) => `${share >= 0 ? '+' : '−'}${Math.abs(share * 100).toFixed(2)}`
</script>

<template>
  <p v-if="worth.reached" class="mt-1.5">
    <b>{{ count(worth.reached.hits) }}</b> of {{ people(worth.reached.of) }} ({{
      percent(worth.reached.hits / Math.max(1, worth.reached.of))
    }}) {{ goalWords }}{{ soFar ? ' so far' : '' }}.
  </p>
  <p v-if="worth.lift" class="mt-1.5">
    Of the {{ people(worth.heldOut) }} in the control group {{ percent(worth.lift.heldOut) }} did so
    without it: the lift is <b>{{ points(worth.lift.difference) }} points</b
    >{{ soFar ? ' so far' : '' }} ({{ points(worth.lift.low) }} to {{ points(worth.lift.high) }}).
    <template v-if="worth.lift.low <= 0 && worth.lift.high >= 0">It may as well be none.</template>
  </p>
  <p v-if="worth.openUntil !== null" class="muted small mt-1">
    The goal can be reached until {{ dayAndTime(worth.openUntil) }}.
  </p>
  <p class="mt-1.5">
    {{ several(worth.orders, 'order', 'orders') }} by {{ people(worth.buyers) }} within five days
    after the click that led there: <b>{{ money(worth.money, currency) }}</b>.
  </p>
</template>
