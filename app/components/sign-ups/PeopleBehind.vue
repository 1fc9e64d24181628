<script setup lang="ts">
/** Of whom a figure of a sign-up's results tells. */
interface Behind {
  id: number
  address: string
  person_id: number | null
  at: number
  ended_at: number | null
  version: number
  page: string | null
}
const props = defineProps<{
  /** What is asked of the server, and what it is in words; null: nothing. */
  figure: { query: string; words: string } | null
}>()
defineEmits<{ close: [] }>()
const store = useSignUp()
const { dayAndTime } = useTimes()
const { answer, problem } = useAnswer<Behind[]>(() =>
  props.figure ? `/api/sign-ups/${store.signUp!.id}/people?${props.figure.query}` : null,
)
const MOST = 500
</script>

<template>
  <BaseDialog :open="figure !== null" :title="figure?.words ?? ''" wide @close="$emit('close')">
    <p v-if="problem" class="fault" role="alert">{{ problem }}</p>
    <p v-else-if="!answer" class="muted">Asking…</p>
    <p v-else-if="!answer.length" class="muted">Nobody.</p>
    <div v-else class="max-h-[56vh] overflow-auto">
      <table class="grid-table">
        <thead>
          <tr>
            <th>Who</th>
            <th>Sent in</th>
            <th>Confirmed</th>
            <th>Version</th>
            <th>Page</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in answer" :key="one.id">
            <td class="max-w-[280px] truncate">
              <NuxtLink v-if="one.person_id" class="link" :to="`/people/${one.person_id}`">{{
                one.address
              }}</NuxtLink>
              <span v-else>{{ one.address || 'forgotten' }}</span>
            </td>
            <td class="whitespace-nowrap">{{ dayAndTime(one.at) }}</td>
            <td class="whitespace-nowrap">
              {{ one.person_id && one.ended_at ? dayAndTime(one.ended_at) : '–' }}
            </td>
            <td class="num">{{ one.version }}</td>
            <td class="muted max-w-[260px] truncate">{{ one.page ?? 'not known' }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="answer && answer.length >= MOST" class="muted small mt-2">The latest {{ MOST }}.</p>
    <template #actions><button class="btn" @click="$emit('close')">Close</button></template>
  </BaseDialog>
</template>
