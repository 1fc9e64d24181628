<script setup lang="ts">
import { totalOf } from '~~/core/counting'
import { wilson } from '~~/core/results'
import { isAlike } from '~~/core/choices'
import {
  isEveryRound,
  judgedBy,
  mailingsOfStep,
  readWhich,
  stepsInOrder,
  wayName,
  writeRoundsAsked,
  writeWhich,
  type SequenceResults,
  type SplitResults,
} from '~~/core/sequences'
import { bounds, reckonedMoney } from './figures'
import { mailWords, stepWords } from './words'

/** What came of a sequence: its goal beside those held out, its mails, its splits, who left, when people read. */
const store = useSequence()
const session = useSession()
const { date } = useTimes()
const of = computed(() => store.asItRuns!)
const days = ref(14)
const lengths = [7, 14, 30, 90]
const route = useRoute()
const which = computed(() => readWhich(route.query))
const { answer, problem, loading } = useAnswer<SequenceResults>(() => {
  const asked = new URLSearchParams({ days: String(days.value), ...writeWhich(which.value) })
  // While another sequence is being opened there is none.
  return store.asItRuns && `/api/sequences/${of.value.id}/results?${asked.toString()}`
})
/** Of the days and people that are chosen now: until they are answered, nothing of others is shown. */
const results = computed(() =>
  answer.value?.days === days.value && isAlike(answer.value.which, which.value)
    ? answer.value
    : null,
)
/** The map shows the figures of whom it is told; until they are known, none of others. */
watch(
  [results, which],
  () => {
    store.counting = !results.value && !isEveryRound(which.value)
    if (results.value) store.narrowed = results.value.figures
    else if (isEveryRound(which.value)) store.narrowed = null
  },
  { immediate: true },
)
onBeforeUnmount(() => {
  store.narrowed = null
  store.counting = false
})
const currency = computed(() => session.account?.currency ?? 'GBP')
const inMoney = (minor: number) => reckonedMoney(minor, currency.value)
const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1)

/** Of the same rounds as is shown. */
const csv = computed(() => {
  const asked = new URLSearchParams(writeWhich(which.value)).toString()
  return `/api/sequences/${of.value.id}/results.csv${asked && `?${asked}`}`
})
/** Where the people of a figure stand. */
const figure = (asked: Parameters<typeof writeRoundsAsked>[0]) => ({
  query: { ...route.query, ...writeRoundsAsked(asked) },
})
const repliedWords = (mailing: number) => {
  const people = results.value?.replied[mailing]
  return people == null ? 'replied: not measured' : `${count(people)} replied`
}
const mails = computed(() =>
  stepsInOrder(of.value.map).flatMap(({ step }) => {
    const ids = mailingsOfStep(step)
    return ids.map((id, n) => {
      const mail = of.value.mailings.find((one) => one.id === id)
      const delivered = totalOf(mail ?? {}, 'delivered')
      const words = mailWords(id, of.value)
      return {
        ...{ id, words: ids.length > 1 ? `${wayName(n)}: ${words}` : words, delivered },
        opened: wilson(mail?.opened ?? 0, delivered),
        clicked: wilson(mail?.clicked ?? 0, delivered),
      }
    })
  }),
)
const splitWords = ({ step }: SplitResults) => {
  const found = of.value.map.steps[step]
  return found ? stepWords(found, of.value) : 'A split of the version that runs'
}
/** Versions of a mail, or ways of a split. */
const isOfMail = ({ step }: SplitResults) => of.value.map.steps[step]?.kind === 'mail'
const ofMail = { opened: 'opened it', clicked: 'clicked in it' }
const judgedWords = (split: SplitResults) =>
  capital((isOfMail(split) ? { ...judgedBy, ...ofMail } : judgedBy)[split.judged.by])
const valueWords = (split: SplitResults, value: number) =>
  split.judged.by === 'money' ? `${inMoney(value)} each` : percent(value)
const shareWords = (shares: number[]) =>
  shares.map((share, way) => `${wayName(way)} ${share / 10}%`).join(', ')
const most = computed(() => Math.max(1, ...(results.value?.hours ?? [])))
const busy = ref(false)
async function decide(split: SplitResults, way: number | null) {
  const { step, since } = split
  const does = isOfMail(split) ? 'gets' : 'goes by'
  busy.value = true
  const done = await act(`/api/sequences/${of.value.id}/split`, 'POST', { step, way, since })
  busy.value = false
  if (!done) return
  useLive().changes++
  useNotices().say(
    way === null
      ? 'From now on it is by lot again.'
      : `Who comes from now on ${does} ${wayName(way)}.`,
  )
}
</script>

<template>
  <RoundList />
  <section class="border-b border-line px-4 py-3" aria-label="Goal and money">
    <div class="flex items-baseline gap-2">
      <h2>Results</h2>
      <a class="link small ml-auto" :href="csv" download>CSV</a>
    </div>
    <label class="mt-1 flex items-center gap-2"
      ><span class="muted small">Within</span>
      <select v-model.number="days" class="field field-sm w-24">
        <option v-for="one in lengths" :key="one" :value="one">{{ one }} days</option></select
      ><span class="muted small">of coming in</span></label
    >
    <WhichRounds />
    <p v-if="problem && !loading" class="fault small mt-2" role="alert">{{ problem }}</p>
    <p v-else-if="!results" class="muted small mt-2" role="status">Counting…</p>
    <template v-else>
      <GoalFigures
        v-for="goal in results.goals"
        :key="goal.step ?? 'none'"
        :goal="goal"
        :days="days"
        :is-among-others="results.goals.length > 1"
      />
    </template>
    <p v-if="results && results.oneIn > 1" class="muted small mt-2">
      One in {{ count(results.oneIn) }} people was asked.
    </p>
  </section>
  <section
    v-for="split in results?.splits ?? []"
    :key="split.step"
    class="border-b border-line px-4 py-3"
    :aria-label="splitWords(split)"
  >
    <h2>{{ splitWords(split) }}</h2>
    <p class="muted small">
      {{ judgedWords(split) }} within {{ several(split.judged.days, 'day', 'days') }}, since
      {{ date(split.since)
      }}<template v-if="!isEveryRound(which)">; of those who are looked at</template>
    </p>
    <table class="mt-1 w-full">
      <caption class="sr-only">
        How its
        {{
          isOfMail(split) ? 'versions' : 'ways'
        }}
        compare
      </caption>
      <thead>
        <tr class="small muted text-right">
          <th class="text-left font-normal">{{ isOfMail(split) ? 'version' : 'way' }}</th>
          <th class="text-right font-normal">people</th>
          <th class="text-right font-normal">came to</th>
          <th class="text-right font-normal">is best</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(way, n) in split.ways" :key="n" class="border-b border-line-soft text-right">
          <th class="py-1 text-left">{{ wayName(n) }}</th>
          <td>{{ count(way.of) }}</td>
          <td>{{ way.of ? valueWords(split, way.value) : '–' }}</td>
          <td>{{ percent(way.best) }}</td>
        </tr>
      </tbody>
    </table>
    <p class="small mt-2" role="status">
      <template v-if="split.shares"
        >Who comes now {{ isOfMail(split) ? 'gets' : 'goes' }} {{ shareWords(split.shares) }}:
        {{ split.by ?? 'by itself' }}, {{ date(split.at!) }}.</template
      >
      <template v-else-if="split.clear">{{ wayName(split.leader) }} is clearly better.</template>
      <template v-else>Not clear yet.</template>
    </p>
    <div v-may="'POST /api/sequences/[id]/split'" class="mt-2 flex flex-wrap gap-2">
      <button
        v-for="(_, n) in split.ways"
        :key="n"
        type="button"
        class="btn btn-sm"
        :disabled="busy"
        @click="decide(split, n)"
      >
        All {{ isOfMail(split) ? 'get' : 'by' }} {{ wayName(n) }}
      </button>
      <button
        v-if="split.shares"
        type="button"
        class="btn btn-sm"
        :disabled="busy"
        @click="decide(split, null)"
      >
        By lot again
      </button>
    </div>
  </section>
  <section
    v-if="mails.length && !store.counting"
    class="border-b border-line px-4 py-3"
    aria-label="Its mails"
  >
    <h2>Mails</h2>
    <ul class="mt-1 grid grid-cols-[minmax(0,1fr)] gap-2">
      <li v-for="mail in mails" :key="mail.id">
        <NuxtLink class="link block truncate" :to="`/mail/${mail.id}/results`">{{
          mail.words
        }}</NuxtLink>
        <span v-if="mail.delivered" class="small"
          >{{ count(mail.delivered) }} delivered · <b>{{ percent(mail.opened.rate) }}</b> opened
          <span class="muted">({{ bounds(mail.opened, percent) }})</span> ·
          <b>{{ percent(mail.clicked.rate) }}</b> clicked
          <span class="muted">({{ bounds(mail.clicked, percent) }})</span
          ><template v-if="results"> · {{ repliedWords(mail.id) }}</template></span
        ><span v-else class="muted small">not sent yet</span>
      </li>
    </ul>
  </section>
  <section
    v-if="results && (results.left.length || of.counts.heldOut)"
    class="border-b border-line px-4 py-3"
    aria-label="Who left"
  >
    <h2>Left on the way</h2>
    <dl class="mt-1 grid grid-cols-[1fr_auto] gap-x-3">
      <template v-for="one in results.left" :key="one.why">
        <dt>{{ one.why }}</dt>
        <dd class="text-right">
          <NuxtLink
            class="link inline-block min-h-6"
            :to="figure({ stand: 'left', why: one.why })"
            :aria-label="`${count(one.people)} left: ${one.why}`"
            >{{ count(one.people) }}</NuxtLink
          >
        </dd>
      </template>
      <template v-if="of.counts.heldOut">
        <dt>held out by lot</dt>
        <dd class="text-right">
          <NuxtLink
            class="link inline-block min-h-6"
            :to="figure({ stand: 'left', why: 'held out' })"
            :aria-label="`${count(of.counts.heldOut)} held out by lot`"
            >{{ count(of.counts.heldOut) }}</NuxtLink
          >
        </dd>
      </template>
    </dl>
  </section>
  <section
    v-if="results && most > 1"
    class="border-b border-line px-4 py-3"
    aria-label="When they open"
  >
    <h2>When they open</h2>
    <ol class="mt-2 flex h-14 list-none items-end gap-[3px] p-0">
      <li
        v-for="(many, hour) in results.hours"
        :key="hour"
        class="flex-1 bg-canvas-500"
        :style="{ height: `${Math.max(3, (many / most) * 100)}%` }"
        :title="`${hour}:00: ${count(many)} first opens`"
      >
        <span class="sr-only">{{ hour }}:00: {{ count(many) }}</span>
      </li>
    </ol>
    <p class="muted small mt-0.5 flex justify-between" aria-hidden="true">
      <span>0:00</span><span>8:00</span><span>16:00</span><span>23:00</span>
    </p>
  </section>
  <PersonWay />
</template>
