<script setup lang="ts">
import type { Person } from './person'

/** What one's team has noted about a person. */
const props = defineProps<{ person: Person }>()
const emit = defineEmits<{ change: [] }>()
const { dayAndTime } = useTimes()
const note = ref('')

async function addNote() {
  if (!note.value.trim()) return
  const done = await act(`/api/people/${props.person.id}/notes`, 'POST', { text: note.value })
  if (done) note.value = ''
  emit('change')
}
async function removeNote(one: Person['notes'][number]) {
  const path = `/api/people/${props.person.id}/notes`
  await act(`${path}/${one.id}`, 'DELETE')
  emit('change')
  useNotices().say('The note is deleted.', {
    label: 'Undo',
    run: async () => {
      await act(path, 'POST', { text: one.text })
      emit('change')
    },
  })
}
</script>

<template>
  <section class="sheet">
    <div class="sheet-head">
      <h2>Notes</h2>
      <span class="muted small">seen by your team only</span>
    </div>
    <form class="flex gap-2 p-3.5" @submit.prevent="addNote">
      <input
        v-model="note"
        class="field"
        aria-label="Write a note"
        placeholder="Write a note"
        maxlength="2000"
      />
      <button v-may="'POST /api/people/[id]/notes'" class="btn" :disabled="!note.trim()">
        Add
      </button>
    </form>
    <ul class="m-0 list-none px-3.5 pb-2">
      <li
        v-for="one in person.notes"
        :key="one.id"
        class="flex gap-2 border-t border-line-soft py-1.5"
      >
        <span class="flex-1"
          >{{ one.text }}
          <span class="muted small">{{ one.by_name }}, {{ dayAndTime(one.at) }}</span></span
        >
        <button
          type="button"
          class="muted min-h-6 min-w-6"
          aria-label="Delete this note"
          @click="removeNote(one)"
        >
          ×
        </button>
      </li>
    </ul>
  </section>
</template>
