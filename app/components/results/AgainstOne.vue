<script setup lang="ts">
import { liftOf } from '~~/core/experiments'
import type { Results } from './results'

/** This mailing beside one that was chosen: each rate, and whether they differ by more than chance. */
const props = defineProps<{ mailing: number; results: Results }>()
const { answer: mailings } = useAnswer<{ id: number; name: string; started_at: number | null }[]>(
  () => '/api/mailings',
)
const others = computed(() =>
  (mailings.value ?? []).filter((one) => one.started_at !== null && one.id !== props.mailing),
)
const chosen = ref<number | null>(null)
const { answer } = useAnswer<{ results: Results | null }>(() =>
  chosen.value === null ? null : `/api/mailings/${chosen.value}/results`,
)
const rows = computed(() => {
  const theirs = answer.value?.results
  if (!theirs || chosen.value === null) return []
  return (
    [
      ['Opened', 'opened'],
      ['Clicked', 'clicked'],
      ['Unsubscribed', 'left'],
      ['Bounced, refused', 'bounced'],
    ] as const
  ).map(([name, key]) => {
    const { low, high, difference } = liftOf(props.results.rates[key], theirs.rates[key])
    const points = (share: number) => (Math.abs(share) * 100).toFixed(1)
    return {
      name,
      mine: props.results.rates[key].rate,
      theirs: theirs.rates[key].rate,
      verdict:
        low > 0 || high < 0
          ? `${points(difference)} points ${difference > 0 ? 'more' : 'less'}`
          : 'no difference beyond chance',
    }
  })
})
const id = useId()
</script>

<template>
  <div class="mt-3 border-t border-line-soft pt-2.5">
    <label :for="id">Beside</label>
    <select :id="id" v-model="chosen" class="field field-sm ml-2 inline-block w-auto max-w-[240px]">
      <option :value="null">one that you choose</option>
      <option v-for="one in others" :key="one.id" :value="one.id">{{ one.name }}</option>
    </select>
    <table v-if="rows.length" class="mt-2 w-full">
      <thead class="sr-only">
        <tr>
          <th>Rate</th>
          <th>This one</th>
          <th>The other</th>
          <th>Difference</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.name">
          <td class="py-0.5">{{ row.name }}</td>
          <td class="num font-semibold">{{ percent(row.mine) }}</td>
          <td class="num muted pl-3">{{ percent(row.theirs) }}</td>
          <td class="small pl-4">{{ row.verdict }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
