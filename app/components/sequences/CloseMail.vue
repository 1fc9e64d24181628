<script setup lang="ts">
import { repaired, repairNames, type CloseMail, type Repair } from '~~/core/sequences'

/** A mark: who inside gets other mail within a day of this sequence's, and of what. Nothing where nobody does. */
const store = useSequence()
const { dayAndTime } = useTimes()
const of = computed(() => store.sequence!)
const { answer: last, loading } = useAnswer<CloseMail & { hasCap: boolean }>(
  () =>
    store.sequence && of.value.state === 'running' && of.value.counts.inside > 0
      ? `/api/sequences/${of.value.id}/close-mail`
      : null,
  { sparing: true },
)
/** Nothing while it is not asked, or another sequence's is not known yet. */
const answer = computed(() => (loading.value ? null : last.value))
defineExpose({ isThere: computed(() => (answer.value?.people ?? 0) > 0) })
const sentence = computed(() => {
  const many = answer.value?.people ?? 0
  const get = many === 1 ? 'gets' : 'get'
  return `${people(many)} inside ${get} other mail within a day of this, as things stand:`
})
const repair: Repair = { is: 'wait for room' }
const isMended = computed(() => repaired(of.value.map, repair, '') === of.value.map)
const path = (key: string) => {
  const [kind, id] = key.split(' ')
  return kind === 'sequence' ? `/sequences/${id}` : `/mail/${id}`
}
</script>

<template>
  <div v-if="answer?.people" class="mt-1.5 flex gap-2" data-close-mail>
    <MarkDot level="caution" class="mt-1 flex-none" />
    <div class="min-w-0">
      <p>{{ sentence }}</p>
      <ul class="mt-0.5">
        <li v-for="other in answer.others" :key="other.of" class="flex gap-2">
          <NuxtLink class="link min-h-6 min-w-0 truncate" :to="path(other.of)">{{
            other.name
          }}</NuxtLink><span class="muted ml-auto">{{ count(other.people) }}</span>
        </li>
      </ul>
      <details class="mt-1">
        <summary class="link small min-h-6">Who</summary>
        <ul>
          <li v-for="one in answer.some" :key="one.id" class="mt-1">
            <NuxtLink class="link block min-h-6 truncate" :to="`/people/${one.id}`">{{
              one.name
            }}</NuxtLink><span class="muted small"
              >{{ dayAndTime(one.at) }}, and “{{ one.of }}” {{ dayAndTime(one.otherAt) }}</span
            >
          </li>
        </ul>
        <p v-if="answer.people > answer.some.length" class="muted small mt-1">
          and {{ count(answer.people - answer.some.length) }} others
        </p>
      </details>
      <p class="muted small mt-1">
        <template v-if="!answer.hasCap"
          >No frequency cap is set that would hold mail back:
          <NuxtLink class="link" to="/settings">Settings</NuxtLink></template
        ><template v-else-if="isMended"
          >Under each <i>Mail</i> stands for how long it waits, or that it is left out, where there
          was as much mail as the frequency cap allows.</template
        ><template v-else
          >Its mail goes out whether or not the frequency cap leaves room for it.</template
        >
      </p>
      <button
        v-if="answer.hasCap && !isMended && store.canChange"
        type="button"
        class="btn btn-sm mt-1"
        @click="store.repair(repair)"
      >
        {{ repairNames[repair.is] }}
      </button>
    </div>
  </div>
</template>
