<script setup lang="ts">
import { limits } from '~~/core/counting'
import type { MailAct } from '~~/core/segments'
import { clickedLinks, peopleWho, type Results } from './results'

const props = defineProps<{ id: number }>()
const { dayAndTime } = useTimes()
const { answer, problem } = useAnswer<{
  subject: string
  mailing: {
    id: number
    name: string
    state: string
    list: string | null
    sequence: { id: number; name: string } | null
    started_at: number | null
  }
  results: Results | null
}>(() => `/api/mailings/${props.id}/results`)
const results = computed(() => answer.value?.results ?? null)
const print = () => window.print()
/** So many replies stand there at first. */
const FEW = 4
const allReplies = ref(false)
const shownReplies = computed(() => {
  const { newest } = results.value!.replied
  return allReplies.value ? newest : newest.slice(0, FEW)
})
const links = computed(() => clickedLinks(results.value?.links ?? []))
const facts = computed(() => {
  const r = results.value
  if (!r) return []
  const span = (rate: { low: number; high: number }) =>
    `${(rate.low * 100).toFixed(1)} to ${(rate.high * 100).toFixed(1)}%`
  return [
    {
      name: 'Delivered',
      did: 'delivered' as MailAct,
      value: count(r.rates.delivered.hits),
      about: `${percent(r.rates.delivered.rate)} of ${count(r.rates.delivered.of)}`,
    },
    {
      name: 'Opened, by people',
      did: 'opened' as MailAct,
      value: percent(r.rates.opened.rate),
      about: span(r.rates.opened),
    },
    {
      name: 'Clicked',
      did: 'clicked' as MailAct,
      value: percent(r.rates.clicked.rate),
      about: `${percent(r.rates.clickToOpen.rate)} of openers`,
    },
    {
      name: 'Unsubscribed',
      did: 'left' as MailAct,
      value: percent(r.rates.left.rate),
      about: people(r.rates.left.hits),
    },
    {
      name: 'Complained',
      did: 'complained' as MailAct,
      value: percent(r.rates.complained.rate),
      about: `${count(r.rates.complained.hits)} · limit ${percent(limits.complained)}`,
    },
    {
      name: 'Bounced, refused',
      did: 'bounced' as MailAct,
      value: percent(r.rates.bounced.rate),
      about: `${count(r.rates.bounced.hits)} · limit ${percent(limits.bounced)}`,
    },
  ]
})
const states: Record<string, string> = {
  failed: 'Refused',
  bounced: 'Bounced',
  dropped: 'Dropped',
  deferred: 'Deferred',
  uncertain: 'Uncertain',
}
</script>

<template>
  <p v-if="problem" class="fault" role="alert">{{ problem }}</p>
  <div v-else-if="answer">
    <div class="flex items-start justify-between gap-4">
      <div class="min-w-0">
        <h1>{{ answer.mailing.name }}</h1>
        <p class="muted mt-0.5">
          “{{ answer.subject }}”<template v-if="answer.mailing.started_at">
            ·
            <template v-if="answer.mailing.sequence"
              >of the sequence
              <NuxtLink class="link" :to="`/sequences/${answer.mailing.sequence.id}`">{{
                answer.mailing.sequence.name
              }}</NuxtLink>, since</template
            >
            {{ dayAndTime(answer.mailing.started_at) }}</template
          ><template v-if="results">
            to {{ people(results.totals.recipients)
            }}<template v-if="answer.mailing.list">
              on {{ answer.mailing.list }}</template
            ></template
          >
        </p>
      </div>
      <div class="flex items-center gap-3">
        <StateMark :state="mailingState(answer.mailing)" /><NuxtLink
          :to="{ path: '/results/data', query: { mailing: id } }"
          class="btn"
          >Export its data</NuxtLink
        ><button v-if="results" class="btn" @click="print">Print</button
        ><NuxtLink :to="`/mail/${id}/letter`" class="btn">See the letter</NuxtLink>
      </div>
    </div>
    <div v-if="!results" class="sheet mt-4 p-8">
      <h2>It has not gone out yet</h2>
      <p class="muted mt-1">
        Once it does, deliveries, opens and clicks come in here as they happen.
      </p>
      <NuxtLink :to="`/mail/${id}/dispatch`" class="btn btn-go mt-3">Open dispatch</NuxtLink>
    </div>
    <template v-else>
      <dl class="sheet mt-3 grid grid-cols-6 py-3">
        <div
          v-for="fact in facts"
          :key="fact.name"
          class="border-l border-line-soft px-3.5 first:border-0"
        >
          <dt class="small muted">{{ fact.name }}</dt>
          <dd>
            <NuxtLink
              class="block font-head text-[21px] leading-7 font-[650] decoration-1 underline-offset-4 hover:underline"
              :to="peopleWho(id, fact.did)"
              :title="`${fact.name}: see who`"
              >{{ fact.value }}</NuxtLink><span class="small muted">{{ fact.about }}</span>
          </dd>
        </div>
      </dl>
      <div class="mt-3.5 grid grid-flow-row-dense grid-cols-[1fr_1.15fr] gap-3.5">
        <section class="sheet px-4 py-3">
          <h2>Who went how far</h2>
          <FunnelChart :totals="results.totals" />
        </section>
        <section class="sheet px-4 py-3">
          <h2>When they came</h2>
          <HoursChart
            :hours="results.hours"
            :later="results.later"
            :half-time="results.halfTime"
            :start="answer.mailing.sequence ? null : answer.mailing.started_at"
          />
        </section>
        <section v-if="results.test" class="sheet px-4 py-3">
          <h2>{{ results.test.winner === null ? 'The test so far' : 'The test: decided' }}</h2>
          <TestCurves :test="results.test" />
        </section>
        <section class="sheet px-4 py-3">
          <h2>Goal and revenue</h2>
          <WorthPanel :worth="results.worth" />
        </section>
        <ClickedLetter class="row-span-2" :mailing="id" :results="results" />
        <section class="sheet px-4 py-3">
          <h2>What they clicked</h2>
          <table class="mt-2 w-full">
            <tbody>
              <tr v-for="link in links" :key="link.numbers[0]">
                <td class="max-w-[210px] py-1">
                  <span class="block truncate font-[560]">{{ link.words }}</span><span
                    class="muted small block truncate"
                    >{{ link.url.replace(/^https?:\/\//, '') }}</span
                  >
                </td>
                <td class="w-[34%] px-3">
                  <div class="h-3 bg-line-soft">
                    <div
                      class="h-full bg-[#37628f]"
                      :style="{
                        width: `${(100 * link.people) / Math.max(1, ...links.map((one) => one.people))}%`,
                      }"
                    />
                  </div>
                </td>
                <td class="num whitespace-nowrap">
                  <NuxtLink class="link" :to="peopleWho(id, 'clicked', undefined, link.numbers)">{{
                    people(link.people)
                  }}</NuxtLink>
                </td>
              </tr>
            </tbody>
          </table>
        </section>
        <section class="sheet px-4 py-3">
          <h2 v-if="answer.mailing.sequence">Against other mail of sequences</h2>
          <h2 v-else>
            Against your last {{ results.earlier.length || '' }} on {{ answer.mailing.list }}
          </h2>
          <p v-if="results.earlier.length && results.age !== null" class="muted small mt-0.5">
            Each counted up to the age of this one, {{ lasting(results.age) }} after it began.
          </p>
          <AgainstEarlier :results="results" />
          <AgainstOne :mailing="id" :of-sequence="answer.mailing.sequence !== null" />
        </section>
        <ResultsBy :mailing="id" />
        <section class="sheet">
          <div class="sheet-head">
            <h2>Who did not get it, and why</h2>
            <span class="small muted"
              >not counted: {{ count(results.totals.machineOpened) }} bot opens,
              {{ count(results.totals.scannerClicked) }} bot clicks</span
            >
          </div>
          <p v-if="!results.reasons.length" class="muted p-4">Everybody got it.</p>
          <table v-else class="grid-table">
            <tbody>
              <tr v-for="(row, i) in results.reasons" :key="i">
                <td class="w-28">{{ states[row.state] }}</td>
                <td>{{ row.answer ?? 'No reason was given.' }}</td>
                <td class="num w-20 font-semibold">{{ count(row.n) }}</td>
              </tr>
            </tbody>
          </table>
        </section>
        <section class="sheet">
          <div class="sheet-head">
            <h2>What they wrote back</h2>
            <span class="small muted">{{
              results.replied.measured
                ? `${people(results.replied.people)} replied`
                : 'replied: not measured'
            }}</span>
          </div>
          <p v-if="!results.replied.measured" class="muted p-4">
            Replies to it went to the sender’s address, past Satchel.
            <NuxtLink class="link" to="/settings">Where replies go</NuxtLink>
          </p>
          <p v-else-if="!results.replied.newest.length" class="muted p-4">
            {{ results.replied.people ? 'Their words are no longer kept.' : 'Nobody has yet.' }}
          </p>
          <template v-else>
            <ReplyList :replies="shownReplies" />
            <button
              v-if="results.replied.newest.length > FEW"
              class="link small mx-3.5 mb-3"
              :aria-expanded="allReplies"
              @click="allReplies = !allReplies"
            >
              {{
                allReplies
                  ? 'Show fewer'
                  : `Show the newest ${count(results.replied.newest.length)}`
              }}
            </button>
          </template>
        </section>
        <section class="sheet px-4 py-3">
          <h2>Who unsubscribed, and why</h2>
          <p v-if="!results.totals.left" class="muted mt-1">Nobody has left by it.</p>
          <template v-else>
            <p class="mt-1">
              <NuxtLink class="link" :to="peopleWho(id, 'left')">{{
                people(results.totals.left)
              }}</NuxtLink>
              left;
              {{
                results.leaving.silent === results.totals.left
                  ? 'nobody has said why.'
                  : `${people(results.totals.left - results.leaving.silent)} said why:`
              }}
            </p>
            <table class="mt-1 w-full">
              <tbody>
                <tr v-for="row in results.leaving.reasons" :key="row.name">
                  <td class="py-0.5">{{ row.name }}</td>
                  <td class="num font-semibold">{{ count(row.n) }}</td>
                </tr>
              </tbody>
            </table>
          </template>
        </section>
        <MessageList :mailing="id" />
      </div>
    </template>
  </div>
</template>
