<script setup lang="ts">
import {
  doubts,
  rateOf,
  signUpRates,
  type Doubt,
  type JudgedTest,
  type SignUpCounts,
  type SignUpRate,
} from '~~/core/sign-ups'
import type { Interval } from '~~/core/results'
import { languageNames, type ReaderLanguage } from '~~/core/readers'

/** What came of a sign-up: seen, sent in, confirmed, stayed; by what sets visitors apart; and what was kept away. */
type Slice = SignUpCounts & { what: string | number }
interface Test {
  id: number
  versions: number[]
  beganAt: number
  judged: JudgedTest
}
interface Results {
  days: number
  by: string
  since: number
  counts: SignUpCounts
  slices: Slice[]
  kept: { doubts: { doubt: Doubt; many: number }[]; lapsed: number }
  test: (Test & { endedAt?: undefined }) | null
  ended: (Test & { endedAt: number; kept: number | null })[]
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
const names = Object.keys(signUpRates) as SignUpRate[]
const lines = computed(() =>
  names.map((key) => ({ key, ...signUpRates[key], ...rateOf(of.value.counts, key) })),
)
/** Versions and weeks in their order, the latest first; anything else with the most seen first. */
const slices = computed(() =>
  of.value.by === 'version' || of.value.by === 'week'
    ? of.value.slices.toSorted((one, other) => Number(other.what) - Number(one.what))
    : of.value.slices,
)
/** Of a slice, what there is room for. */
const columns = ['sentIn', 'confirmed', 'stayed30', 'third', 'ordered'] as const
const shortNames: Record<(typeof columns)[number], string> = {
  sentIn: 'Sent in',
  confirmed: 'Confirmed',
  stayed30: 'Stayed 30 days',
  third: 'Third letter',
  ordered: 'Ordered',
}
const interval = ({ low, high }: Interval) => `${percent(low)} to ${percent(high)}`
function sliceName({ what }: Slice): string {
  if (of.value.by === 'version') return `Version ${what}`
  if (of.value.by === 'language') return languageNames[what as ReaderLanguage] ?? String(what)
  if (of.value.by === 'week') return `from ${date(of.value.since + Number(what) * 7 * 86_400_000)}`
  return String(what) || 'not known'
}
const figure = ref<{ query: string; words: string } | null>(null)
function show(outcome: SignUpRate, words: string, slice: Slice | null = null) {
  const query = new URLSearchParams({ outcome, days: String(of.value.days), by: of.value.by })
  if (slice) query.set('what', String(slice.what))
  figure.value = {
    query: String(query),
    words: slice ? `${words}: ${sliceName(slice)}` : words,
  }
}
</script>

<template>
  <div class="h-full overflow-auto px-5 py-5">
    <p v-if="problem" class="fault" role="alert">{{ problem }}</p>
    <div v-else-if="answer" class="mx-auto grid max-w-[960px] gap-5">
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
      <VersionTest v-if="of.test" :test="of.test" />
      <section class="sheet" aria-label="What came of it">
        <div class="sheet-head">
          <h2>Seen by {{ count(of.counts.seen) }}</h2>
          <span class="muted small"
            >{{ count(of.counts.begun) }} began to fill it in · with 95% intervals</span
          >
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
            <tr v-for="line in lines" :key="line.key">
              <td>{{ line.name }}</td>
              <td class="num">
                <button
                  v-if="line.did"
                  type="button"
                  class="link"
                  :aria-label="`${line.name}: ${count(line.did)}, who they are`"
                  @click="show(line.key, line.name)"
                >
                  {{ count(line.did) }}</button><span v-else>0</span>
              </td>
              <td class="num">{{ line.of ? percent(line.rate.rate) : '–' }}</td>
              <td class="muted">{{ line.of ? interval(line.rate) : 'nobody yet' }}</td>
              <td class="muted">{{ count(line.of) }} {{ signUpRates[line.key].of }}</td>
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
          <span class="muted small">each with its interval; a number leads to its people</span>
        </div>
        <p v-if="!of.slices.length" class="muted p-4">Nobody has seen it in this time.</p>
        <table v-else class="grid-table">
          <thead>
            <tr>
              <th>{{ ways.find(({ key }) => key === of.by)?.name }}</th>
              <th class="num">Seen</th>
              <th class="num">Begun</th>
              <th v-for="key in columns" :key="key" class="num">{{ shortNames[key] }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="slice in slices" :key="slice.what">
              <td class="max-w-[220px] truncate">{{ sliceName(slice) }}</td>
              <td class="num">{{ count(slice.seen) }}</td>
              <td class="num">{{ count(slice.begun) }}</td>
              <td v-for="key in columns" :key="key" class="num">
                <button
                  v-if="rateOf(slice, key).did"
                  type="button"
                  class="link"
                  :aria-label="`${shortNames[key]}, ${sliceName(slice)}: ${count(rateOf(slice, key).did)}, who they are`"
                  @click="show(key, shortNames[key], slice)"
                >
                  {{ count(rateOf(slice, key).did) }}</button><span v-else>0</span
                ><span class="muted small block whitespace-nowrap">{{
                  rateOf(slice, key).of
                    ? `${percent(rateOf(slice, key).rate.low)}–${percent(rateOf(slice, key).rate.high)}`
                    : '–'
                }}</span>
              </td>
            </tr>
          </tbody>
        </table>
      </section>
      <CostOfAsking />
      <VersionTest v-for="one in of.ended" :key="one.id" :test="one" />
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
      <PeopleBehind :figure="figure" @close="figure = null" />
    </div>
  </div>
</template>
