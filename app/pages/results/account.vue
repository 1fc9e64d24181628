<script setup lang="ts">
import type { Interval, ShrunkRate } from '~~/core/results'

/** What came of all mailings of a year: reading, the list, who stayed, when they read, and the subjects. */
interface Account {
  months: {
    month: string
    mailings: number
    delivered: number
    ofSequences: number
    opened: Interval
    clicked: Interval
  }[]
  labels: {
    id: number
    name: string
    mailings: number
    delivered: number
    opened: Interval
    clicked: Interval
  }[]
  growth: { month: string; joined: number; gone: number }[]
  cohorts: { month: string; joined: number; on: number; reading: number; bought: number }[]
  hours: number[][]
  subjects: ({ id: number; name: string; subject: string; delivered: number } & ShrunkRate)[]
}
const { answer, problem } = useAnswer<Account>(() => '/api/results')
const monthName = (month: string, long = false) =>
  new Date(`${month}-01T00:00:00Z`).toLocaleDateString('en-GB', {
    month: long ? 'long' : 'short',
    year: long ? 'numeric' : undefined,
    timeZone: 'UTC',
  })
const cohorts = computed(() => (answer.value?.cohorts ?? []).filter(({ joined }) => joined > 0))
const ofSequences = computed(() =>
  (answer.value?.months ?? []).reduce((sum, one) => sum + one.ofSequences, 0),
)
const shares = [
  ['on', 'Still on a list'],
  ['reading', 'Opened in the last 30 days'],
  ['bought', 'Have bought'],
] as const
const shade = (share: number) => `rgba(152, 170, 102, ${(0.08 + 0.72 * share).toFixed(2)})`
const all = ref(false)
const subjects = computed(() => {
  const list = answer.value?.subjects ?? []
  return all.value || list.length <= 10 ? list : [...list.slice(0, 5), ...list.slice(-5)]
})
</script>

<template>
  <div>
    <h1>Over the year</h1>
    <p class="muted mt-0.5">
      All mailings of the last twelve months<template v-if="ofSequences"
        >, {{ count(ofSequences) }} mails of sequences among them by when each was
        accepted</template
      >; and what became of the list.
    </p>
    <p v-if="problem" class="fault mt-3" role="alert">{{ problem }}</p>
    <div v-if="answer" class="mt-3 grid grid-cols-2 items-start gap-3.5">
      <section class="sheet px-4 py-3">
        <h2>Reading, month by month</h2>
        <MonthRates :months="answer.months" :month-name="monthName" />
      </section>
      <section class="sheet px-4 py-3">
        <h2>The list, month by month</h2>
        <MonthGrowth :growth="answer.growth" :month-name="monthName" />
      </section>
      <section class="sheet">
        <div class="sheet-head">
          <h2>Who joined when, and what became of them</h2>
        </div>
        <p v-if="!cohorts.length" class="muted p-4">Nobody has joined in this year.</p>
        <table v-else class="grid-table">
          <thead>
            <tr>
              <th>Joined</th>
              <th class="num">People</th>
              <th v-for="[key, name] in shares" :key="key" class="num">{{ name }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in cohorts" :key="row.month">
              <td class="whitespace-nowrap">{{ monthName(row.month, true) }}</td>
              <td class="num">{{ count(row.joined) }}</td>
              <td
                v-for="[key] in shares"
                :key="key"
                class="num"
                :style="{ background: shade(row[key] / row.joined) }"
              >
                {{ percent(row[key] / row.joined) }}
              </td>
            </tr>
          </tbody>
        </table>
      </section>
      <div class="space-y-3.5">
        <section class="sheet px-4 py-3">
          <h2>When they read</h2>
          <ReadingHours :hours="answer.hours" />
        </section>
        <section v-if="answer.labels.length" class="sheet">
          <div class="sheet-head"><h2>By label</h2></div>
          <table class="grid-table">
            <thead>
              <tr>
                <th>Label</th>
                <th class="num">Mailings</th>
                <th class="num">Delivered</th>
                <th class="num">Opened</th>
                <th class="num">Clicked</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="row in answer.labels" :key="row.id">
                <td>
                  <NuxtLink class="link" :to="`/results/account?label=${row.id}`">{{
                    row.name
                  }}</NuxtLink>
                </td>
                <td class="num">{{ count(row.mailings) }}</td>
                <td class="num">{{ count(row.delivered) }}</td>
                <td v-for="rate in [row.opened, row.clicked]" :key="rate.low" class="num">
                  <b class="font-semibold">{{ percent(rate.rate) }}</b>
                  <span class="muted small block"
                    >{{ percent(rate.low) }} to {{ percent(rate.high) }}</span
                  >
                </td>
              </tr>
            </tbody>
          </table>
        </section>
        <section class="sheet px-4 py-3">
          <h2>Subjects</h2>
          <p class="muted small mt-0.5">
            By the share that opened, drawn towards the mean the more the fewer it went to. Without
            tests, mail of sequences, and what is younger than two days.
          </p>
          <p v-if="!subjects.length" class="muted mt-2">
            No mailing has gone to {{ people(50) }} yet.
          </p>
          <table v-else class="mt-1.5 w-full">
            <thead class="sr-only">
              <tr>
                <th>Subject</th>
                <th>Opened, likely</th>
                <th>Between</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="row in subjects" :key="row.id" class="border-t border-line-soft">
                <td class="max-w-0 py-1">
                  <NuxtLink class="link block truncate" :to="`/results/${row.id}`">{{
                    row.subject || row.name
                  }}</NuxtLink>
                </td>
                <td class="num w-14 font-semibold">{{ percent(row.rate) }}</td>
                <td class="num muted small w-28">
                  {{ percent(row.low) }} to {{ percent(row.high) }}
                </td>
              </tr>
            </tbody>
          </table>
          <button
            v-if="answer.subjects.length > 10"
            class="btn btn-sm mt-2"
            :aria-expanded="all"
            @click="all = !all"
          >
            {{ all ? 'The best and the last five' : `All ${answer.subjects.length}` }}
          </button>
        </section>
      </div>
    </div>
  </div>
</template>
