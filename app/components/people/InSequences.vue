<script setup lang="ts">
import type { Person } from './person'

/** Lets a person into a running sequence by hand, or takes them out of one they are inside of. */
const props = defineProps<{ person: Person }>()
const emit = defineEmits<{ close: []; done: [] }>()
const { date } = useTimes()
const { answer: all, problem } = useAnswer<{ id: number; name: string; state: string }[]>(
  () => '/api/sequences',
  { live: false },
)
const running = computed(() => (all.value ?? []).filter(({ state }) => state === 'running'))
const inside = computed(() => props.person.sequences.filter(({ state }) => state === 'inside'))
const into = ref('')
const busy = ref(false)
async function tell(id: number, what: 'people' | 'leave', words: string) {
  busy.value = true
  const done = await act(`/api/sequences/${id}/${what}`, 'POST', { personId: props.person.id })
  busy.value = false
  if (!done) return
  useLive().changes++
  useNotices().say(words)
  emit('done')
}
const named = (id: number) => running.value.find((one) => one.id === id)?.name ?? ''
</script>

<template>
  <BaseDialog open title="Sequences" @close="emit('close')">
    <ul v-if="inside.length" class="mb-4 grid gap-1">
      <li v-for="one in inside" :key="`${one.id} ${one.round}`" class="flex items-center gap-3">
        <span
          >inside <b>{{ one.name }}</b> since {{ date(one.entered_at) }}</span
        >
        <button
          type="button"
          class="btn btn-sm ml-auto"
          :disabled="busy"
          :aria-label="`Take out of ${one.name}`"
          @click="tell(one.id, 'leave', `They are out of ${one.name}.`)"
        >
          Take out
        </button>
      </li>
    </ul>
    <p v-if="problem" class="fault" role="alert">{{ problem }}</p>
    <p v-else-if="all && !running.length">No sequence runs just now.</p>
    <form
      v-else
      id="let-in-form"
      @submit.prevent="tell(Number(into), 'people', `They are inside ${named(Number(into))}.`)"
    >
      <label for="let-into" class="muted">Let into</label>
      <select id="let-into" v-model="into" class="field mt-1">
        <option value="">choose a sequence</option>
        <option v-for="one in running" :key="one.id" :value="String(one.id)">{{ one.name }}</option>
      </select>
      <p class="muted small mt-2">
        They come in where they are subscribed to its list and fit its rule, and as often as it lets
        somebody in.
      </p>
    </form>
    <template #actions>
      <button type="button" class="btn" @click="emit('close')">Close</button>
      <button form="let-in-form" class="btn btn-go" :disabled="busy || !into">Let in</button>
    </template>
  </BaseDialog>
</template>
