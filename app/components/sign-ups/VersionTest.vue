<script setup lang="ts">
import { CLEAR } from '~~/core/experiments'
import type { JudgedTest } from '~~/core/sign-ups'

/** Versions that visitors see by lot: how they compare, and which is kept; or what an earlier test came to. */
const props = defineProps<{
  test: {
    id: number
    versions: number[]
    beganAt: number
    endedAt?: number
    kept?: number | null
    judged: JudgedTest
  }
}>()
const store = useSignUp()
const live = useLive()
const { dayAndTime } = useTimes()
const busy = ref(false)
const runs = computed(() => props.test.endedAt === undefined)
const leader = computed(() => props.test.judged.versions[props.test.judged.leader]!)
const points = (share: number) => `${share >= 0 ? '+' : '−'}${Math.abs(share * 100).toFixed(1)}`
const verdict = computed(() => {
  const { judged } = props.test
  if (judged.versions.every(({ confirmed }) => confirmed === 0))
    return 'Nobody has confirmed yet, so nothing tells them apart.'
  const { low, high } = judged.ahead
  const ahead = `Against the next: ${points(low)} to ${points(high)} points.`
  return judged.clear
    ? `Version ${leader.value.version} is the best with a probability of ${percent(leader.value.best)}. ${ahead}`
    : `Version ${leader.value.version} leads, the best with a probability of ${percent(leader.value.best)}; ${Math.round(CLEAR * 100)}% would be clear. ${ahead}`
})
async function keep(version: number | null) {
  busy.value = true
  const done = await act(`/api/sign-ups/${store.signUp!.id}/end-test`, 'POST', { keep: version })
  busy.value = false
  if (!done) return
  live.changes++
  useNotices().say(
    version === null
      ? 'The test is over; what stood before goes on.'
      : `The test is over; version ${version} stands everywhere within a minute.`,
  )
}
</script>

<template>
  <section class="sheet" :aria-label="runs ? 'Test' : 'An earlier test'">
    <div class="sheet-head">
      <h2>{{ runs ? 'Test of versions, by lot' : `Test of ${test.versions.join(', ')}` }}</h2>
      <span class="muted small"
        >{{ dayAndTime(test.beganAt)
        }}{{ runs ? ' until now' : ` to ${dayAndTime(test.endedAt!)}` }}, by who confirmed</span
      >
    </div>
    <table class="grid-table">
      <thead>
        <tr>
          <th>Version</th>
          <th class="num">Seen</th>
          <th class="num">Confirmed</th>
          <th class="num">Rate</th>
          <th>Interval</th>
          <th class="num">Probably best</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in test.judged.versions" :key="one.version">
          <td>Version {{ one.version }}</td>
          <td class="num">{{ count(one.seen) }}</td>
          <td class="num">{{ count(one.confirmed) }}</td>
          <td class="num">{{ one.seen ? percent(one.rate.rate) : '–' }}</td>
          <td class="muted">
            {{ one.seen ? `${percent(one.rate.low)} to ${percent(one.rate.high)}` : 'nobody yet' }}
          </td>
          <td class="num">{{ percent(one.best) }}</td>
          <td>
            <button
              v-if="runs"
              v-may="'POST /api/sign-ups/[id]/end-test'"
              type="button"
              class="link small whitespace-nowrap"
              :disabled="busy"
              @click="keep(one.version)"
            >
              Keep this one
            </button>
            <span v-else-if="test.kept === one.version" class="muted small">kept</span>
          </td>
        </tr>
      </tbody>
    </table>
    <p class="border-t border-line-soft px-3 py-3">
      {{ verdict }}
      <button
        v-if="runs"
        v-may="'POST /api/sign-ups/[id]/end-test'"
        type="button"
        class="link small"
        :disabled="busy"
        @click="keep(null)"
      >
        End it, keep what stood
      </button>
    </p>
  </section>
</template>
