<script setup lang="ts">
import { DRAWS, type Band, type Rehearsal } from '~~/core/rehearsal'
import { between } from './step-figures'

/** What a rehearsal says, of everybody or of one person. */
const rehearsing = useRehearsal()
const who = ref<'everybody' | 'one'>('everybody')
const choices = [
  { value: 'everybody' as const, name: 'Everybody' },
  { value: 'one' as const, name: 'One person' },
]
const { rehearsal, before, drawn } = storeToRefs(rehearsing)
const { date } = useTimes()
const lengths = [14, 30, 60, 90, 180]

const audience = computed(() => drawn.value?.audience)
const scale = (band: Band, by: number): Band => ({
  middle: band.middle / by,
  low: band.low / by,
  high: band.high / by,
})
const rate = (n: number) => n.toFixed(1)
/** Each figure with what nine draws in ten lie between. */
function figuresOf(of: Rehearsal) {
  const all = Math.max(1, of.cameIn.middle)
  const shares = (band: Band) => [scale(band, all), percent] as const
  return [
    ['Reach the goal', ...shares(of.goal)],
    ['Days until then, the middle one', of.goalDays, rate],
    ['Unsubscribe on the way', ...shares(of.left)],
    [`Still inside after ${rehearsing.days} days`, ...shares(of.inside)],
    ['Mails a person', scale(of.mails, all), rate],
    ['Get two mails within a day', ...shares(of.close)],
  ] as const
}
const hasGoal = computed(() =>
  Object.values(useSequence().sequence!.map.steps).some(({ kind }) => kind === 'goal'),
)
const rows = computed(() => {
  if (!rehearsal.value) return []
  const old = before.value && figuresOf(before.value)
  return figuresOf(rehearsal.value)
    .map(([name, band, words], n) => ({
      ...{ name, middle: words(band.middle), between: between(band, words) },
      before: old ? words(old[n]![1].middle) : null,
    }))
    .filter((_, n) => hasGoal.value || n > 1)
})
/** The version beside the map has an address. */
const route = useRoute()
watch(
  () => Number(route.query.beside) || null,
  (version) => (rehearsing.version = version),
  { immediate: true },
)
const versions = computed(() => useSequence().sequence?.versions ?? [])
const newest = computed(() => versions.value[0]?.version ?? null)
const chosen = computed(() => rehearsing.version ?? newest.value)
const besideName = computed(() => `version ${drawn.value?.beside?.version}`)
const stands = computed(() => (useSequence().sequence?.state === 'running' ? 'runs' : 'ran'))
function putBeside(version: number) {
  const { beside: _, ...rest } = route.query
  const query = version === newest.value ? {} : { beside: String(version) }
  void goTo({ query: { ...rest, ...query } })
}
const weeks = computed(() => {
  const all = Math.max(1, rehearsal.value?.cameIn.middle ?? 1)
  const each = (rehearsal.value?.weeks ?? []).map(({ middle }) => middle / all)
  const most = Math.max(...each, 0.1)
  return each.map((mails, n) => ({ n: n + 1, mails, height: (mails / most) * 100 }))
})
</script>

<template>
  <section class="border-b border-line px-4 py-3" aria-label="Rehearsal">
    <h2>Rehearsal</h2>
    <ChoiceButtons v-model="who" class="mt-2" label="Who walks through it" :options="choices" />
    <RehearsalOne v-if="who === 'one'" />
    <template v-else>
      <p class="muted small mt-2" role="status">
        <template v-if="rehearsing.problem">{{ rehearsing.problem }}</template>
        <template v-else-if="!audience">Drawing people…</template>
        <template v-else-if="audience.people.length === 0"
          >Nobody could come in now, so nobody can walk through it.</template
        >
        <template v-else
          >{{
            audience.isAll
              ? `All ${people(audience.people.length)}`
              : people(audience.people.length)
          }}{{ audience.isAll ? ' who could come in' : ' drawn from those who could come in' }}.
          <template v-if="!rehearsal || !rehearsing.isCurrent">Walking…</template
          ><template v-else>{{ rehearsal.draws }} of {{ DRAWS }} draws.</template></template
        >
      </p>
      <div class="mt-2 flex items-center gap-2">
        <label class="flex items-center gap-2"
          ><span class="muted small">Each for</span>
          <select
            class="field field-sm w-24"
            :value="rehearsing.days"
            @change="rehearsing.days = Number(($event.target as HTMLSelectElement).value)"
          >
            <option v-for="one in lengths" :key="one" :value="one">{{ one }} days</option>
          </select></label
        >
        <button
          type="button"
          class="btn btn-sm"
          title="The same people with other luck"
          @click="rehearsing.problem ? rehearsing.draw() : rehearsing.seed++"
        >
          Draw again
        </button>
      </div>
      <label v-if="newest !== null" class="mt-2 flex items-center gap-2"
        ><span class="muted small">Beside</span>
        <select
          class="field field-sm"
          aria-label="Beside which version"
          :value="chosen"
          @change="putBeside(Number(($event.target as HTMLSelectElement).value))"
        >
          <option v-for="one in versions" :key="one.version" :value="one.version">
            version {{ one.version }},
            {{ one.version === newest ? `as it ${stands}` : `of ${date(one.at)}` }}
          </option>
        </select>
      </label>
      <p v-if="rehearsing.isSame" class="muted small">Which is the map as it stands.</p>
      <template v-if="rehearsal && audience?.people.length">
        <table class="mt-3 w-full" :class="!rehearsing.isCurrent && 'opacity-50'">
          <caption class="sr-only">
            What comes of it
          </caption>
          <thead v-if="before">
            <tr class="small muted text-right">
              <th class="text-left font-normal"><span class="sr-only">Figure</span></th>
              <th class="text-right font-normal">now</th>
              <th class="pl-2 text-right font-normal whitespace-nowrap">{{ besideName }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in rows" :key="row.name" class="border-b border-line-soft align-top">
              <th class="py-1 pr-2 text-left font-normal">{{ row.name }}</th>
              <td class="py-1 text-right whitespace-nowrap">
                <b>{{ row.middle }}</b><span class="muted small block">{{ row.between }}</span>
              </td>
              <td v-if="before" class="py-1 pl-2 text-right whitespace-nowrap">{{ row.before }}</td>
            </tr>
          </tbody>
        </table>
        <ForetoldSteps v-if="rehearsing.isAsItRan" :rehearsal="rehearsal" />
        <h3 class="mt-3 font-semibold">Mails a person, by week</h3>
        <ol class="mt-1 flex h-16 list-none items-end gap-1 p-0">
          <li
            v-for="week in weeks"
            :key="week.n"
            class="flex-1 bg-canvas-500"
            :style="{ height: `${Math.max(2, week.height)}%` }"
            :title="`Week ${week.n}: ${week.mails.toFixed(2)} mails a person`"
          >
            <span class="sr-only">Week {{ week.n }}: {{ week.mails.toFixed(2) }}</span>
          </li>
        </ol>
        <p class="muted small mt-2">
          Nobody gets mail by this. What each would do is estimated from what they and others like
          them did so far; under a figure stands what nine draws in ten lie between. Segments are
          asked as people are now, and each comes in once.
        </p>
      </template>
    </template>
  </section>
</template>
