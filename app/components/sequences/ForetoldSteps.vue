<script setup lang="ts">
import { wilson } from '~~/core/results'
import type { Band, Rehearsal } from '~~/core/rehearsal'
import { between, mailFigures } from './step-figures'
import { mailStepWords } from './words'

/** What was rehearsed beside what came of it so far, with intervals: how well the rehearsal foretells. */
const props = defineProps<{ rehearsal: Rehearsal }>()
const store = useSequence()
/** So few say nothing. */
const ENOUGH = 10
const share = (band: Band | undefined, of: number): Band => ({
  middle: (band?.middle ?? 0) / of,
  low: (band?.low ?? 0) / of,
  high: (band?.high ?? 0) / of,
})
const rows = computed(() => {
  const { traffic, counts } = store.sequence!
  const out = counts.finished + counts.left
  return store.line.flatMap(({ id, step }) => {
    const row = (words: string, foretold: Band, hits: number, of: number) => {
      if (of < ENOUGH) return []
      const { rate, low, high } = wilson(hits, of)
      return [{ id: `${id} ${words}`, words, foretold, came: { middle: rate, low, high } }]
    }
    if (step.kind === 'mail') {
      const { delivered, opened, clicked } = mailFigures(step, store.sequence!)
      const got = Math.max(1, props.rehearsal.traffic[id]?.[0]?.middle ?? 0)
      const named = mailStepWords(step, store.sequence!)
      return [
        ...row(`${named}: opened`, share(props.rehearsal.opened[id], got), opened, delivered),
        ...row(`${named}: clicked`, share(props.rehearsal.clicked[id], got), clicked, delivered),
      ]
    }
    if (step.kind !== 'goal') return []
    const all = Math.max(1, props.rehearsal.cameIn.middle)
    return row(
      `${step.name || 'Goal'}: reached`,
      share(props.rehearsal.traffic[id]?.[1], all),
      traffic[id]?.[1] ?? 0,
      out,
    )
  })
})
</script>

<template>
  <details v-if="rows.length" class="mt-3">
    <summary class="link min-h-6">Beside what came of it so far</summary>
    <table class="mt-1 w-full">
      <caption class="sr-only">
        Rehearsed, and so far
      </caption>
      <thead>
        <tr class="small muted text-right">
          <th class="text-left font-normal"><span class="sr-only">Figure</span></th>
          <th class="text-right font-normal">rehearsed</th>
          <th class="pl-2 text-right font-normal">so far</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.id" class="border-b border-line-soft align-top">
          <th class="py-1 pr-2 text-left font-normal">{{ row.words }}</th>
          <td
            v-for="[name, band] in Object.entries({ rehearsed: row.foretold, came: row.came })"
            :key="name"
            class="py-1 pl-2 text-right whitespace-nowrap"
          >
            <b>{{ percent(band.middle) }}</b><span class="muted small block">{{
              between(band, percent)
            }}</span>
          </td>
        </tr>
      </tbody>
    </table>
  </details>
</template>
