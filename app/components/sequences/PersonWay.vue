<script setup lang="ts">
import { nameOrAddress } from '~~/core/people'
import type { Starting } from '~~/core/sequences'
import { mailWords, startingWords, stepWords, wayWords } from './words'

/** One person's way through the sequence, found by name or address: every step, with what they did. */
interface Round {
  round: number
  version: number
  state: 'inside' | 'finished' | 'left'
  why: string | null
  step: string
  due: number
  entered_at: number
  ended_at: number | null
  by: Starting | null
  trail: { visit: number; step: string; way: number; at: number }[]
  mails: {
    mailing_id: number
    accepted_at: number | null
    opened_at: number | null
    clicked_at: number | null
    left_at: number | null
    state: string
  }[]
}
const store = useSequence()
const route = useRoute()
const { dayAndTime } = useTimes()
const of = computed(() => store.asItRuns!)
/** Whose; it has an address. */
const person = computed(() => Number(route.query.person) || null)
const { answer: way, problem } = useAnswer<{ person: number; rounds: Round[] }>(() =>
  person.value ? `/api/sequences/${of.value.id}/way?person=${person.value}` : null,
)
/** An answer about somebody who was looked for before is none. */
const answer = computed(() => (way.value?.person === person.value ? way.value!.rounds : null))
const { answer: who } = useAnswer<{
  id: number
  address: string
  first_name: string | null
  last_name: string | null
}>(() => (person.value ? `/api/people/${person.value}` : null))
const isTheirs = computed(() => who.value?.id === person.value)
const name = computed(() => who.value && nameOrAddress(who.value))
const choose = (id: number | undefined) => void goTo({ query: { ...route.query, person: id } })

interface Line {
  at: number
  words: string
}
function linesOf(round: Round): Line[] {
  const lines: Line[] = [
    {
      at: round.entered_at,
      words: `came in: ${round.by ? startingWords(round.by, of.value) : 'by hand, or by another sequence'}`,
    },
  ]
  for (const { step: id, way, at } of round.trail) {
    const step = of.value.map.steps[id]
    if (!step) lines.push({ at, words: 'a step of an earlier version' })
    else if (step.kind === 'goal')
      lines.push({ at, words: way === 1 ? `reached ${stepWords(step, of.value)}` : 'not the goal' })
    else if (step.kind !== 'mail') {
      const by = wayWords(step, way, of.value)
      lines.push({
        at,
        words: by ? `${stepWords(step, of.value)} → ${by}` : stepWords(step, of.value),
      })
    }
  }
  for (const mail of round.mails) {
    const subject = `“${mailWords(mail.mailing_id, of.value)}”`
    const add = (at: number | null, words: string) => {
      if (at !== null) lines.push({ at, words })
    }
    add(mail.accepted_at, `sent ${subject}`)
    add(mail.opened_at, `opened ${subject}`)
    add(mail.clicked_at, `clicked in ${subject}`)
    add(mail.left_at, `unsubscribed by ${subject}`)
  }
  if (round.ended_at !== null)
    lines.push({
      at: round.ended_at,
      words:
        round.why === 'goal'
          ? 'out by the goal'
          : round.state === 'finished'
            ? 'finished'
            : `left: ${round.why}`,
    })
  else {
    const step = of.value.map.steps[round.step]
    lines.push({
      at: round.due,
      words: step ? `goes on from “${stepWords(step, of.value)}”` : 'goes on',
    })
  }
  return lines.toSorted((a, b) => a.at - b.at)
}
</script>

<template>
  <section class="px-4 py-3" aria-label="One person’s way">
    <h2>One person’s way</h2>
    <p v-if="!person" class="muted small mt-1 flex gap-2">
      By name or address: <FindReader @choose="choose" />
    </p>
    <template v-else>
      <p class="mt-1 flex gap-2">
        <NuxtLink v-if="isTheirs" class="link truncate" :to="`/people/${person}`">{{
          name
        }}</NuxtLink>
        <button type="button" class="link ml-auto" @click="choose(undefined)">Another</button>
      </p>
      <p v-if="problem" class="fault small" role="alert">{{ problem }}</p>
      <p v-else-if="!answer || !isTheirs" class="muted small" role="status">Looking…</p>
      <p v-else-if="!answer.length" class="muted small">They were never inside.</p>
      <template v-else>
        <ol
          v-for="round in answer"
          :key="round.round"
          class="small mt-2 grid list-none gap-0.5 p-0"
        >
          <li v-if="answer.length > 1" class="font-semibold">Time {{ round.round + 1 }}</li>
          <li v-for="(line, n) in linesOf(round)" :key="n">
            <span class="muted">{{ dayAndTime(line.at) }}</span> {{ line.words }}
          </li>
        </ol>
      </template>
    </template>
  </section>
</template>
