<script setup lang="ts">
import type { ByAsked, FieldCost } from '~~/core/sign-ups'

/** What asking costs: over all forms by how many things they ask, and for this form field by field. */
const store = useSignUp()
const { answer, problem } = useAnswer<{ byNumber: ByAsked[]; costs: FieldCost[] }>(() =>
  store.signUp ? `/api/sign-ups/${store.signUp.id}/asking` : null,
)
const asks = (n: number) =>
  n === 0
    ? 'the address alone'
    : n === 1
      ? 'one thing more'
      : n === 2
        ? 'two more'
        : 'three or more'
const nameOf = (key: string) => store.signUp!.fields.find((field) => field.key === key)?.name ?? key
const points = (share: number) => `${share > 0 ? '−' : '+'}${Math.abs(share * 100).toFixed(1)}`
</script>

<template>
  <section class="sheet" aria-label="What asking costs">
    <div class="sheet-head">
      <h2>What asking costs</h2>
      <span class="muted small">confirmed of seen, within a year, with 95% intervals</span>
    </div>
    <p v-if="problem" class="fault p-4" role="alert">{{ problem }}</p>
    <div v-else-if="answer" class="grid grid-cols-2">
      <div class="border-r border-line-soft">
        <p class="muted small px-3 pt-3">All forms, by what they ask</p>
        <p v-if="!answer.byNumber.length" class="muted px-3 py-4">Nobody has seen a form yet.</p>
        <table v-else class="grid-table">
          <tbody>
            <tr v-for="one in answer.byNumber" :key="one.asked">
              <td>{{ asks(one.asked) }}</td>
              <td class="num">{{ percent(one.rate.rate) }}</td>
              <td class="muted whitespace-nowrap">
                {{ percent(one.rate.low) }} to {{ percent(one.rate.high) }}
              </td>
              <td class="num muted">{{ count(one.seen) }} saw it</td>
            </tr>
          </tbody>
        </table>
      </div>
      <div>
        <p class="muted small px-3 pt-3">This form, versions with it against those without</p>
        <p v-if="!answer.costs.length" class="muted px-3 py-4">
          Every version asked for the same, so nothing tells what a field costs.
        </p>
        <table v-else class="grid-table">
          <tbody>
            <tr v-for="one in answer.costs" :key="one.field">
              <td>{{ nameOf(one.field) }}</td>
              <td class="num whitespace-nowrap">{{ points(one.cost.difference) }} points</td>
              <td class="muted whitespace-nowrap">
                {{ points(one.cost.high) }} to {{ points(one.cost.low) }}
              </td>
            </tr>
          </tbody>
        </table>
      </div>
    </div>
  </section>
</template>
