<script setup lang="ts">
import { nameOrAddress } from '~~/core/people'
import { walkOne, type Audience, type Reaction } from '~~/core/rehearsal'
import {
  askedByWaits,
  deedOf,
  happeningsOf,
  mailingsOfStep,
  rulesOf,
  wayName,
  type Happening,
  type Step,
} from '~~/core/sequences'
import { happeningWords, mailWords, stepWords, wayWords } from './words'

/** One person walks through the map as one says they do: somebody on file, or nobody in particular. */
const store = useSequence()
const { dayAndTime } = useTimes()
const session = useSession()
const live = useLive()
const of = computed(() => store.sequence!)
const reactions = reactive<Record<string, Reaction>>({})
const events = reactive<Record<string, number>>({})
const ways = reactive<Record<string, number>>({})
const links = reactive<Record<string, string>>({})
const fits = reactive<Record<string, boolean>>({})
const reactionNames: Record<Reaction, string> = {
  nothing: 'does nothing',
  opens: 'opens it',
  clicks: 'clicks in it',
  orders: 'clicks, and orders',
  unsubscribes: 'unsubscribes',
}
const chosen = shallowRef<{ id: number; name: string; audience: Audience } | null>(null)
let asked = 0
/** Somebody on file: what fields of theirs hold, and whether they fit what is asked now. */
async function choose(id: number) {
  const mine = ++asked
  const { id: sequenceId, map, listId } = of.value
  const body = { map, listId, personId: id }
  const [got, person] = await Promise.all([
    orNotice(question<{ audience: Audience }>(`/api/sequences/${sequenceId}/rehearsal`, body)),
    ask<{ address: string; first_name: string | null; last_name: string | null }>(
      `/api/people/${id}`,
    ),
  ])
  if (mine !== asked || !got || !person) return
  const name = nameOrAddress(person)
  chosen.value = { id, name, audience: got.audience }
  for (const [rule, members] of Object.entries(got.audience.fits)) fits[rule] = members[0]!
}
// What is asked of them anew is not known of them yet.
watch(
  () => JSON.stringify([rulesOf(of.value.map), askedByWaits(of.value.map)]),
  () => chosen.value && void choose(chosen.value.id),
)
function nobody() {
  asked++
  chosen.value = null
}
/** What they may do, each once, with its words. */
const deeds = computed(() => {
  const asked = happeningsOf(of.value.map).flatMap((one) =>
    one.is === 'did' && one.event ? [one] : [],
  )
  return new Map(asked.map((one) => [deedOf(one), happeningWords(one, of.value)]))
})
const begins = ref(live.now)
const { drawn } = storeToRefs(useRehearsal())
/** Those who are drawn for everybody say when anybody reads. */
const customs = computed(() => (chosen.value?.audience ?? drawn.value?.audience)?.customs)
const knowsHours = computed(
  () =>
    !askedByWaits(of.value.map).bestHour ||
    (customs.value !== undefined && customs.value.opens.length > 0),
)
const walked = computed(() =>
  walkOne(
    of.value.map,
    { reactions, links, events, ways, fits },
    {
      ...{ zone: session.zone, quiet: customs.value?.quiet ?? null },
      everybody: customs.value?.opens ?? [],
      ...(chosen.value?.audience.people[0] ?? { fields: {}, opens: [] }),
    },
    begins.value,
  ),
)
const stops = computed(() =>
  walked.value.passed.map((one) => ({ ...one, of: of.value.map.steps[one.step]! })),
)
/** The links of a mail that the map asks for, where they click in it. */
function linksAsked(mail: string): string[] {
  const isHere = (one: Happening): one is Extract<Happening, { is: 'clicked' }> =>
    one.is === 'clicked' && (one.mail === null || one.mail === mail)
  const asked = happeningsOf(of.value.map).flatMap((one) =>
    isHere(one) && one.link ? [one.link] : [],
  )
  const clicks = reactions[mail] === 'clicks' || reactions[mail] === 'orders'
  return clicks ? [...new Set(asked)] : []
}
function clickOn(mail: string, link: string) {
  if (link === 'any') delete links[mail]
  else links[mail] = link
}
/** Which version of a mail they get; the first, where the one that was chosen is gone. */
const versionOf = (id: string, step: Step) =>
  (ways[id] ?? 0) < mailingsOfStep(step).length ? (ways[id] ?? 0) : 0
const asksOf = (step: Step): Extract<Happening, { is: 'fits' }>[] =>
  step.kind === 'fork'
    ? step.ways.flatMap(({ when }) => (when.is === 'fits' ? [when] : []))
    : step.kind === 'goal' && step.when.is === 'fits'
      ? [step.when]
      : []
const end = computed(() => {
  const { ended, inside } = walked.value.walked
  if (!ended) return `still at “${stepWords(of.value.map.steps[inside]!, of.value)}”`
  if (ended.state === 'left') return 'out: unsubscribed'
  return ended.why === 'goal' ? 'out by the goal' : 'finished'
})
const value = (event: Event) => (event.target as HTMLSelectElement).value
function setEvent(deed: string, days: string) {
  if (days === '') delete events[deed]
  else events[deed] = Number(days)
}
</script>

<template>
  <div class="mt-2 flex min-h-6 items-center gap-2">
    <template v-if="chosen">
      <NuxtLink class="link truncate" :to="`/people/${chosen.id}`">{{ chosen.name }}</NuxtLink>
      <button type="button" class="link ml-auto" @click="nobody">Anybody</button>
    </template>
    <template v-else><span>Anybody.</span><FindReader @choose="choose" /></template>
  </div>
  <div v-for="[deed, words] in deeds" :key="deed" class="mt-2">
    <label class="flex items-center gap-2"
      ><span class="muted small truncate">{{ words }}</span>
      <select
        class="field field-sm ml-auto w-32"
        :value="events[deed] ?? ''"
        @change="setEvent(deed, value($event))"
      >
        <option value="">never</option>
        <option v-for="days in [1, 3, 7, 14]" :key="days" :value="days">
          after {{ days }} {{ days === 1 ? 'day' : 'days' }}
        </option>
      </select></label
    >
  </div>
  <p v-if="!knowsHours" class="muted small mt-2" role="status">
    It is not known yet when people read: until it is, “at their best hour” is shown as midnight.
  </p>
  <ol class="mt-3 grid list-none gap-2 p-0" aria-label="Their way">
    <li class="small">
      <span class="muted">{{ dayAndTime(begins) }}</span> comes in
    </li>
    <li
      v-for="(stop, n) in stops"
      :key="`${n} ${stop.step}`"
      class="border-t border-line-soft pt-2"
    >
      <span class="muted small block">{{ dayAndTime(stop.at) }}</span>
      <button type="button" class="block text-left font-semibold" @click="store.chosen = stop.step">
        {{ stepWords(stop.of, of) }}
      </button>
      <template v-if="stop.of.kind === 'mail'">
        <label class="mt-1 flex items-center gap-2"
          ><span class="sr-only">What they do with “{{ stepWords(stop.of, of) }}”</span>
          <select
            class="field field-sm"
            :value="reactions[stop.step] ?? 'nothing'"
            @change="reactions[stop.step] = value($event) as Reaction"
          >
            <option v-for="(name, key) in reactionNames" :key="key" :value="key">{{ name }}</option>
          </select></label
        >
        <label v-if="linksAsked(stop.step).length" class="mt-1 block"
          ><span class="sr-only">On which link they click</span>
          <select
            class="field field-sm w-full"
            :value="links[stop.step] ?? 'any'"
            @change="clickOn(stop.step, value($event))"
          >
            <option value="any">on every link that is asked for</option>
            <option v-for="link in linksAsked(stop.step)" :key="link" :value="link">
              on {{ link }}
            </option>
            <option value="">on another link</option>
          </select></label
        >
        <label v-if="stop.of.versions" class="mt-1 block"
          ><span class="sr-only">Which version they get</span>
          <select
            class="field field-sm w-full"
            :value="versionOf(stop.step, stop.of)"
            @change="ways[stop.step] = Number(value($event))"
          >
            <option v-for="(mailing, no) in mailingsOfStep(stop.of)" :key="mailing" :value="no">
              {{ wayName(no) }}: {{ mailWords(mailing, of) }}
            </option>
          </select></label
        >
        <NuxtLink
          class="link small inline-block min-h-6"
          :to="{
            path: `/mail/${mailingsOfStep(stop.of)[versionOf(stop.step, stop.of)]}/letter`,
            query: chosen ? { reader: chosen.id } : {},
          }"
          >{{ chosen ? 'The letter, as they read it' : 'The letter' }}</NuxtLink
        >
      </template>
      <label v-else-if="stop.of.kind === 'split'" class="mt-1 block"
        ><span class="sr-only">Where they fall</span>
        <select
          class="field field-sm"
          :value="stop.way"
          @change="ways[stop.step] = Number(value($event))"
        >
          <option v-for="way in stop.of.ways.length + 1" :key="way" :value="way - 1">
            {{ wayWords(stop.of, way - 1, of) }}
          </option>
        </select></label
      >
      <template v-else>
        <label
          v-for="one in asksOf(stop.of)"
          :key="JSON.stringify(one.rule)"
          class="mt-1 flex min-h-6 items-center gap-2"
          ><input v-model="fits[JSON.stringify(one.rule)]" type="checkbox" />{{
            happeningWords(one, of)
          }}</label
        >
        <span v-if="wayWords(stop.of, stop.way, of)" class="small"
          >→ {{ wayWords(stop.of, stop.way, of) }}</span
        >
      </template>
    </li>
    <li class="border-t border-line-soft pt-2 font-semibold">
      <span role="status">{{ end }}</span>
    </li>
  </ol>
</template>
