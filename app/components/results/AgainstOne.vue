<script setup lang="ts">
import type { Beside } from '~~/core/experiments'

/** This mailing beside one that was chosen: each rate, and whether they differ by more than chance. */
const props = defineProps<{ mailing: number; ofSequence: boolean }>()
const { answer: mailings } = useAnswer<
  { id: number; name: string; sequence?: string; started_at: number | null }[]
>(() => (props.ofSequence ? '/api/results/sequences' : '/api/mailings'))
const others = computed(() =>
  (mailings.value ?? []).filter((one) => one.started_at !== null && one.id !== props.mailing),
)
const chosen = ref<number | null>(null)
const { answer, problem, loading } = useAnswer<Beside>(() =>
  chosen.value === null ? null : `/api/mailings/${props.mailing}/beside?other=${chosen.value}`,
)
const rows = computed(() =>
  chosen.value === null || loading.value
    ? []
    : (answer.value?.rates ?? []).map((rate) => {
        const points = (Math.abs(rate.difference) * 100).toFixed(1)
        return {
          ...rate,
          verdict:
            rate.low > 0 || rate.high < 0
              ? `${points} points ${rate.difference > 0 ? 'more' : 'less'}`
              : 'no difference beyond chance',
        }
      }),
)
const id = useId()
</script>

<template>
  <div class="mt-3 border-t border-line-soft pt-2.5">
    <label :for="id">Beside</label>
    <select :id="id" v-model="chosen" class="field field-sm ml-2 inline-block w-auto max-w-[240px]">
      <option :value="null">one that you choose</option>
      <option v-for="one in others" :key="one.id" :value="one.id">
        {{ one.sequence ? `${one.sequence}: ${one.name}` : one.name }}
      </option>
    </select>
    <p v-if="problem" class="fault mt-2" role="alert">{{ problem }}</p>
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
          <td class="num font-semibold">{{ percent(row.mailed) }}</td>
          <td class="num muted pl-3">{{ percent(row.heldOut) }}</td>
          <td class="small pl-4">{{ row.verdict }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="rows.length && answer?.age != null" class="muted small mt-1">
      Both at the age of the younger, {{ lasting(answer.age) }} after each began.
    </p>
  </div>
</template>
