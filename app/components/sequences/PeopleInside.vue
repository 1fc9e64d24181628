<script setup lang="ts">
import { nameOrAddress } from '~~/core/people'
import { stepWords } from './words'

/** Who is inside, who moves next first. */
const store = useSequence()
const { dayAndTime } = useTimes()
const of = computed(() => store.sequence!)
function whereWords(id: string) {
  const step = of.value.map.steps[id]
  if (!step) return 'a step of an earlier version'
  return step.kind === 'mail' ? 'about to be mailed' : `at “${stepWords(step, of.value)}”`
}
</script>

<template>
  <h2>Inside · {{ count(of.counts.inside) }}</h2>
  <p v-if="!of.people.length" class="muted small mt-1">Nobody just now.</p>
  <ul v-else class="mt-1">
    <li
      v-for="one in of.people.slice(0, 12)"
      :key="`${one.id} ${one.round}`"
      class="border-b border-line-soft py-1 last:border-0"
    >
      <NuxtLink class="link block truncate" :to="`/people/${one.id}`">{{
        nameOrAddress(one)
      }}</NuxtLink>
      <span class="muted small"
        >{{ whereWords(one.step) }}, goes on {{ dayAndTime(one.due)
        }}<template v-if="one.version !== of.version"> · version {{ one.version }}</template
        ><template v-if="one.round > 0"> · time {{ one.round + 1 }}</template></span
      >
    </li>
  </ul>
  <NuxtLink
    v-if="of.counts.inside > 12"
    class="link small"
    :to="{
      path: '/people/segments/new',
      query: {
        rule: JSON.stringify({
          kind: 'all',
          of: [{ kind: 'sequence', sequenceId: of.id, is: 'inside' }],
        }),
      },
    }"
    >All of them, as a segment</NuxtLink
  >
</template>
