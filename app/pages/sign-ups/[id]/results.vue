<script setup lang="ts">
import { doubts, type Doubt, type SignUpCounts, type SignUpRates } from '~~/core/sign-ups'
import type { Interval } from '~~/core/results'
import { languageNames, type ReaderLanguage } from '~~/core/readers'

/** What came of a sign-up: seen, sent in, confirmed, stayed; by what sets visitors apart; and what was kept away. */
interface Slice {
  what: string | number
  seen: number
  begun: number
  sentIn: number
  confirmed: number
}
interface Results {
  days: number
  by: string
  since: number
  counts: SignUpCounts
  rates: SignUpRates
  slices: Slice[]
  kept: { doubts: { doubt: Doubt; many: number }[]; lapsed: number }
}
const store = useSignUp()
const { date } = useTimes()
const days = ref<number>(365)
const by = ref('version')
const ways = [
  { key: 'version', name: 'Version' },
  { key: 'page', name: 'Page' },
  { key: 'source', name: 'Source' },
  { key: 'device', name: 'Device' },
  { key: 'language', name: 'Language' },
  { key: 'week', name: 'Week' },
]
const { answer, problem } = useAnswer<Results>(() =>
  store.signUp
    ? `/api/sign-ups/${store.signUp.id}/results?days=${days.value}&by=${by.value}`
    : null,
)
const of = computed(() => answer.value!)
const lines = computed(() => {
  const { counts, rates } = of.value
  return [
    { name: 'Sent in', many: counts.sentIn, of: counts.seen, rate: rates.sentIn },
    { name: 'Confirmed', many: counts.confirmed, of: counts.seen, rate: rates.confirmed },
    {
      name: 'Stayed 30 days',
      many: counts.after30.stayed,
      of: counts.after30.of,
      rate: rates.stayed30,
    },
    {
      name: 'Stayed 90 days',
      many: counts.after90.stayed,
      of: counts.after90.of,
      rate: rates.stayed90,
    },
  ]
})
const interval = ({ low, high }: Interval) => `${percent(low)} to ${percent(high)}`
function sliceName({ what }: Slice): string {
  if (by.value === 'version') return `Version ${what}`
  if (by.value === 'language') return languageNames[what as ReaderLanguage] ?? String(what)
  if (by.value === 'week') return `from ${date(of.value.since + Number(what) * 7 * 86_400_000)}`
  return String(what) || 'not known'
}
</script>

<template>
  <div class="h-full overflow-auto px-5 py-5">
    <p v-if="problem" class="fault" role="alert">{{ problem }}</p>
    <div v-else-if="answer" class="mx-auto grid max-w-[920px] gap-5">
      <div class="flex items-center justify-between gap-4">
        <ChoiceButtons
          v-model="days"
          :options="[
            { value: 7, name: '7 days' },
            { value: 30, name: '30 days' },
            { value: 90, name: '90 days' },
            { value: 365, name: 'A year' },
          ]"
          label="Time"
        />
        <span class="muted small"
          >a visitor is counted once a day, by a hash whose key is thrown away each day: no
          cookie</span
        >
      </div>
      <section class="sheet" aria-label="What came of it">
        <div class="sheet-head">
          <h2>Seen by {{ count(of.counts.seen) }}</h2>
          <span class="muted small">with 95% intervals</span>
        </div>
        <table class="grid-table">
          <thead>
            <tr>
              <th>What</th>
              <th class="num">How many</th>
              <th class="num">Rate</th>
              <th>Interval</th>
              <th>Of</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="line in lines" :key="line.name">
              <td>{{ line.name }}</td>
              <td class="num">{{ count(line.many) }}</td>
              <td class="num">{{ line.of ? percent(line.rate.rate) : '–' }}</td>
              <td class="muted">{{ line.of ? interval(line.rate) : 'nobody yet' }}</td>
              <td class="muted">
                {{ count(line.of) }}
                {{ line.name.startsWith('Stayed') ? 'who confirmed that long ago' : 'who saw it' }}
              </td>
            </tr>
          </tbody>
        </table>
      </section>
      <section class="sheet" aria-label="By">
        <div class="sheet-head">
          <h2>
            <label
              >By
              <select v-model="by" class="field field-sm ml-1 inline-block w-auto font-normal">
                <option v-for="way in ways" :key="way.key" :value="way.key">{{ way.name }}</option>
              </select></label
            >
          </h2>
        </div>
        <p v-if="!of.slices.length" class="muted p-4">Nobody has seen it in this time.</p>
        <table v-else class="grid-table">
          <thead>
            <tr>
              <th>{{ ways.find(({ key }) => key === of.by)?.name }}</th>
              <th class="num">Seen</th>
              <th class="num">Begun</th>
              <th class="num">Sent in</th>
              <th class="num">Confirmed</th>
              <th class="num">Confirmed of seen</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="slice in of.slices" :key="slice.what">
              <td class="max-w-[280px] truncate">{{ sliceName(slice) }}</td>
              <td class="num">{{ count(slice.seen) }}</td>
              <td class="num">{{ count(slice.begun) }}</td>
              <td class="num">{{ count(slice.sentIn) }}</td>
              <td class="num">{{ count(slice.confirmed) }}</td>
              <td class="num">
                {{ slice.seen ? percent(Math.min(1, slice.confirmed / slice.seen)) : '–' }}
              </td>
            </tr>
          </tbody>
        </table>
      </section>
      <div class="grid grid-cols-2 items-start gap-5">
        <section class="sheet" aria-label="Kept away">
          <div class="sheet-head"><h2>Kept away, 7 days</h2></div>
          <table class="grid-table">
            <tbody>
              <tr v-for="one in of.kept.doubts" :key="one.doubt">
                <td>{{ doubts[one.doubt].words }}</td>
                <td class="num">{{ count(one.many) }}</td>
              </tr>
              <tr>
                <td>Never confirmed</td>
                <td class="num">{{ count(of.kept.lapsed) }}</td>
              </tr>
            </tbody>
          </table>
        </section>
        <KeptForLook />
      </div>
    </div>
  </div>
</template>
