<script setup lang="ts">
import { max, scaleLinear, sum } from 'd3'
import type { Rule } from '~~/core/segments'

/** Segments against each other: a column for each way of being in some of them and not in the others. */
interface Comparison {
  segments: { id: number; name: string }[]
  parts: { of: number[]; n: number }[]
}
const route = useRoute()
const all = useAnswer<{ id: number; name: string }[]>(() => '/api/segments', { live: false })
const chosen = computed(() =>
  String(route.query.of ?? '')
    .split(',')
    .map(Number)
    .filter((id) => id > 0),
)
const { answer, problem, loading } = useAnswer<Comparison>(
  () => (chosen.value.length >= 2 ? `/api/segments/compare?of=${chosen.value.join(',')}` : null),
  { live: false },
)
const parts = computed(() => answer.value?.parts.filter(({ of }) => of.length > 0) ?? [])
const nowhere = computed(() => answer.value?.parts.find(({ of }) => of.length === 0)?.n ?? 0)
const sizeOf = (id: number) => sum(parts.value, (part) => (part.of.includes(id) ? part.n : 0))
const COLUMN = 58
const HEIGHT = 190
const ROW = 34
const up = computed(() => scaleLinear([0, max(parts.value, ({ n }) => n) || 1], [0, HEIGHT - 26]))
const across = computed(() =>
  scaleLinear([0, max(answer.value?.segments ?? [], ({ id }) => sizeOf(id)) || 1], [0, 90]),
)
const left = 270
const width = computed(() => left + parts.value.length * COLUMN + 10)
const names = (ids: number[]) =>
  answer.value!.segments.filter(({ id }) => ids.includes(id)).map(({ name }) => name)

function toggle(id: number, on: boolean) {
  const of = on ? [...chosen.value, id] : chosen.value.filter((one) => one !== id)
  void goTo({ query: { of: of.join(',') } }, { replace: true })
}
/** The people of one part as a rule: in these, and in none of the others. */
function ruleOf(ids: number[]): Rule {
  const segment = (segmentId: number): Rule => ({ kind: 'segment', segmentId })
  const others = answer.value!.segments.filter(({ id }) => !ids.includes(id))
  return {
    kind: 'all',
    of: [
      ...ids.map(segment),
      ...(others.length
        ? [{ kind: 'none' as const, of: others.map(({ id }) => segment(id)) }]
        : []),
    ],
  }
}
async function make(ids: number[]) {
  const others = answer.value!.segments.filter(({ id }) => !ids.includes(id))
  const name =
    names(ids).join(' and ') +
    (others.length ? `, not ${others.map((one) => one.name).join(' or ')}` : '')
  const made = await act<{ id: number }>('/api/segments', 'POST', {
    name: name.slice(0, 100),
    rule: ruleOf(ids),
  })
  if (!made) return
  useLive().changes++
  await goTo(`/people/segments/${made.id}`)
}
</script>

<template>
  <div class="mx-auto max-w-[1100px]">
    <h1>Compare segments</h1>
    <p class="muted mt-0.5">
      Who is in which of them, and in no other. Everybody is counted once. A column opens as a
      segment.
    </p>
    <fieldset class="mt-3 flex flex-wrap gap-2">
      <legend class="sr-only">Segments to compare</legend>
      <label v-for="one in all.answer.value" :key="one.id" class="chip flex items-center gap-1.5">
        <input
          type="checkbox"
          :checked="chosen.includes(one.id)"
          @change="toggle(one.id, ($event.target as HTMLInputElement).checked)"
        />{{ one.name }}
      </label>
    </fieldset>
    <p v-if="problem" class="fault mt-3" role="alert">{{ problem }}</p>
    <p v-else-if="chosen.length < 2" class="muted sheet mt-4 p-5">Choose two or more.</p>
    <p v-else-if="loading && !answer" class="muted mt-4">Counting…</p>
    <section
      v-if="answer && chosen.length >= 2"
      class="sheet mt-4 overflow-x-auto p-4"
      tabindex="0"
      aria-label="Shared and not"
    >
      <svg
        :width="width"
        :height="HEIGHT + answer.segments.length * ROW + 8"
        role="group"
        aria-label="Each column: how many are in just the marked segments"
      >
        <g
          v-for="(one, row) in answer.segments"
          :key="one.id"
          :transform="`translate(0 ${HEIGHT + row * ROW})`"
        >
          <rect
            v-if="row % 2 === 0"
            x="0"
            y="0"
            :width="width"
            :height="ROW"
            fill="var(--canvas-50)"
          />
          <text x="8" :y="ROW / 2 + 4" class="text-[12.5px]">
            {{ one.name.length > 22 ? `${one.name.slice(0, 21)}…` : one.name }}
          </text>
          <rect
            :x="left - 14 - across(sizeOf(one.id))"
            :y="ROW / 2 - 5"
            :width="across(sizeOf(one.id))"
            height="10"
            fill="var(--canvas-400)"
          />
          <text
            :x="left - 20 - across(sizeOf(one.id))"
            :y="ROW / 2 + 4"
            text-anchor="end"
            class="fill-ink-500 text-[11px]"
          >
            {{ count(sizeOf(one.id)) }}
          </text>
        </g>
        <g
          v-for="(part, i) in parts"
          :key="part.of.join()"
          :transform="`translate(${left + i * COLUMN} 0)`"
          class="part cursor-pointer"
          role="button"
          tabindex="0"
          :aria-label="`${people(part.n)} in just ${names(part.of).join(' and ')}: make a segment`"
          @click="make(part.of)"
          @keydown.enter="make(part.of)"
        >
          <rect
            x="0"
            y="0"
            :width="COLUMN - 4"
            :height="HEIGHT + answer.segments.length * ROW"
            fill="transparent"
          />
          <rect
            x="12"
            :y="HEIGHT - 6 - up(part.n)"
            width="30"
            :height="up(part.n)"
            fill="var(--canvas-600)"
          />
          <text
            x="27"
            :y="HEIGHT - 12 - up(part.n)"
            text-anchor="middle"
            class="text-[12px] font-semibold"
          >
            {{ count(part.n) }}
          </text>
          <template v-for="(one, row) in answer.segments" :key="one.id">
            <rect
              x="20"
              :y="HEIGHT + row * ROW + ROW / 2 - 7"
              width="14"
              height="14"
              rx="3"
              :fill="part.of.includes(one.id) ? 'var(--canvas-700)' : 'none'"
              :stroke="part.of.includes(one.id) ? 'var(--canvas-700)' : 'var(--ink-300)'"
            />
          </template>
        </g>
      </svg>
      <p class="muted mt-2">{{ people(nowhere) }} are in none of these.</p>
    </section>
  </div>
</template>

<style scoped>
.part:hover > rect:first-child,
.part:focus-visible > rect:first-child {
  fill: var(--brass-100);
}
</style>
