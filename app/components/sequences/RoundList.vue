<script setup lang="ts">
import { isAlike } from '~~/core/choices'
import {
  readRoundsAsked,
  readWhich,
  ROUNDS_SHOWN,
  writeRoundsAsked,
  writeWhich,
  type Round,
  type RoundsAsked,
  type Which,
} from '~~/core/sequences'
import { stepWords, wayWords } from './words'

/** The people behind the figure that is chosen, one by one: each time they came in. What is chosen has an address. */
const store = useSequence()
const route = useRoute()
const { dayAndTime } = useTimes()
const of = computed(() => store.asItRuns!)
const asked = computed(() => readRoundsAsked(route.query))
const which = computed(() => readWhich(route.query))
const { answer, problem } = useAnswer<{
  asked: RoundsAsked
  which: Which
  rounds: Round[]
  more: boolean
}>(
  () => {
    if (!asked.value || !store.asItRuns) return null
    const query = new URLSearchParams(writeWhich(which.value))
    for (const [key, value] of Object.entries(writeRoundsAsked(asked.value)))
      if (value !== undefined) query.set(key, value)
    return `/api/sequences/${of.value.id}/rounds?${query.toString()}`
  },
  { sparing: true },
)
/** Of what is chosen now; until it is answered, nothing else is shown for it. */
const shown = computed(() =>
  answer.value &&
  isAlike(answer.value.asked, asked.value) &&
  isAlike(answer.value.which, which.value)
    ? answer.value
    : null,
)
const stands: Record<RoundsAsked['stand'], string> = {
  came: 'came in',
  inside: 'are inside',
  finished: 'came to the end',
  left: 'left on the way',
}
/** "went by “Fork: clicked in any mail?”, yes". */
const words = computed(() => {
  const { stand, step, way, why } = asked.value!
  const at = step === null ? undefined : of.value.map.steps[step]
  if (why !== null) return `left: ${why}`
  if (step === null) return stands[stand]
  const name = at ? stepWords(at, of.value) : 'a step that is gone'
  if (stand === 'inside') return `stand at “${name}”`
  if (at?.kind === 'goal' && way === 1) return `reached “${name}”`
  const by = at && way !== null ? wayWords(at, way, of.value) : ''
  return `went by “${name}”${by ? `, ${by}` : ''}`
})
function whereWords({ state, step, due, why, ended_at }: Round): string {
  const at = of.value.map.steps[step]
  if (state === 'inside')
    return `at “${at ? stepWords(at, of.value) : 'a step of an earlier version'}”, goes on ${dayAndTime(due)}`
  const when = ended_at === null ? '' : ` ${dayAndTime(ended_at)}`
  if (state === 'left') return `left${when}: ${why ?? ''}`
  return why === 'goal' ? `out by the goal${when}` : `finished${when}`
}
function choose(offset: number) {
  void goTo({ query: { ...route.query, ...writeRoundsAsked({ ...asked.value!, offset }) } })
}
const close = () => void goTo({ query: { ...route.query, ...none } })
const none = { of: undefined, step: undefined, way: undefined, why: undefined, offset: undefined }
const heading = useTemplateRef('heading')
/** Whoever presses a figure elsewhere on the page is led here. */
watch(
  () => JSON.stringify({ ...asked.value, offset: 0 }),
  () => asked.value && void nextTick(() => heading.value?.scrollIntoView({ block: 'nearest' })),
)
</script>

<template>
  <section v-if="asked" class="border-b border-line px-4 py-3" aria-label="One by one">
    <div ref="heading" class="flex items-baseline gap-2">
      <h2>One by one</h2>
      <button type="button" class="link small ml-auto min-h-6" @click="close">Close</button>
    </div>
    <p class="muted small">Who {{ words }}, the latest first.</p>
    <p v-if="problem && !shown" class="fault small mt-2" role="alert">{{ problem }}</p>
    <p v-else-if="!shown" class="muted small mt-2" role="status">Looking…</p>
    <p v-else-if="!shown.rounds.length" class="muted small mt-2">Nobody.</p>
    <template v-else>
      <ul class="mt-1">
        <li
          v-for="one in shown.rounds"
          :key="`${one.person_id} ${one.round}`"
          class="border-b border-line-soft py-1 last:border-0"
        >
          <NuxtLink
            v-if="one.name"
            class="link block min-h-6 truncate"
            :to="`/people/${one.person_id}`"
            >{{ one.name }}</NuxtLink><span v-else class="muted block"
            >somebody who was erased</span
          >
          <span class="muted small block"
            >came in {{ dayAndTime(one.entered_at)
            }}<template v-if="one.round > 0">, time {{ one.round + 1 }}</template
            >; {{ whereWords(one) }}</span
          >
        </li>
      </ul>
      <div v-if="asked.offset > 0 || shown.more" class="mt-2 flex gap-2">
        <button
          v-if="asked.offset > 0"
          type="button"
          class="btn btn-sm"
          @click="choose(Math.max(0, asked.offset - ROUNDS_SHOWN))"
        >
          Later
        </button>
        <button
          v-if="shown.more"
          type="button"
          class="btn btn-sm"
          @click="choose(asked.offset + ROUNDS_SHOWN)"
        >
          Earlier
        </button>
      </div>
    </template>
  </section>
</template>
