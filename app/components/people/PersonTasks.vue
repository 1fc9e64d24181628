<script setup lang="ts">
import { LONGEST_TASK } from '~~/core/people'
import type { Person } from './person'

/** What the team is to do about a person, and what it did. */
const props = defineProps<{ person: Person }>()
const emit = defineEmits<{ change: [] }>()
const text = ref('')
const due = ref<string | null>(null)
const to = ref('')
const day = computed(() => due.value ?? props.person.today)
async function add() {
  if (!text.value.trim()) return
  const task = { text: text.value, due: day.value, to: to.value || null }
  const done = await act(`/api/people/${props.person.id}/tasks`, 'POST', task)
  if (done) {
    text.value = ''
    due.value = null
  }
  emit('change')
}
const value = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <section class="sheet" aria-label="Tasks">
    <div class="sheet-head">
      <h2>Tasks</h2>
      <span class="muted small">what your team is to do about them</span>
    </div>
    <form class="flex flex-wrap gap-2 p-3.5" @submit.prevent="add">
      <input
        v-model="text"
        class="field min-w-52 flex-1"
        aria-label="What is to be done"
        placeholder="What is to be done"
        :maxlength="LONGEST_TASK"
      />
      <input
        class="field !w-auto"
        type="date"
        aria-label="Until when"
        required
        :value="day"
        @change="due = value($event)"
      />
      <select v-model="to" class="field !w-48" aria-label="Who does it">
        <option value="">anybody</option>
        <option v-for="one in person.team" :key="one" :value="one">{{ one }}</option>
      </select>
      <button v-may="'POST /api/people/[id]/tasks'" class="btn" :disabled="!text.trim()">
        Add task
      </button>
    </form>
    <TaskList class="!pb-2" :tasks="person.tasks" :today="person.today" @change="emit('change')" />
  </section>
</template>
