<script setup lang="ts">
import { dueIn, type Task } from '~~/core/people'
import { dateText, type Day } from '~~/core/time'

/** Tasks with when they are due, to tick and to delete; `named`: each with whom it is about. */
const props = defineProps<{ tasks: readonly Task[]; today: Day; named?: boolean }>()
const emit = defineEmits<{ change: [] }>()
const notices = useNotices()
const { date } = useTimes()
const path = (task: Task) => `/api/people/${task.person.id}/tasks`
function dueWords({ due, done }: Task): string {
  if (done) return `done ${date(done.at)}${done.by ? ` by ${done.by}` : ''}`
  const days = dueIn(due, props.today)
  if (days === 0) return 'due today'
  if (days < 0) return `${several(-days, 'day', 'days')} late`
  return days === 1 ? 'due tomorrow' : days < 8 ? `due in ${days} days` : `due ${dateText(due)}`
}
const isLate = ({ due, done }: Task) => !done && due < props.today
async function tick(task: Task, done: boolean) {
  const answer = await act(`${path(task)}/${task.id}`, 'PUT', { done })
  emit('change')
  if (!answer) return
  notices.say(done ? `Done: ${task.text}` : `To do again: ${task.text}`, {
    label: 'Undo',
    run: async () => {
      await act(`${path(task)}/${task.id}`, 'PUT', { done: !done })
      emit('change')
    },
  })
}
async function remove(task: Task) {
  const answer = await act(`${path(task)}/${task.id}`, 'DELETE')
  emit('change')
  if (!answer) return
  notices.say('The task is deleted.', {
    label: 'Undo',
    run: async () => {
      await act(path(task), 'POST', { text: task.text, due: task.due, to: task.for })
      emit('change')
    },
  })
}
</script>

<template>
  <ul class="m-0 list-none p-0">
    <li
      v-for="task in tasks"
      :key="task.id"
      class="flex items-start gap-2.5 border-t border-line-soft px-3.5 py-1.5 first:border-0"
    >
      <label class="grid size-6 flex-none place-items-center"
        ><input
          v-may="'PUT /api/people/[id]/tasks/[task]'"
          class="size-4"
          type="checkbox"
          :checked="task.done !== null"
          :aria-label="`Done: ${task.text}`"
          @change="tick(task, ($event.target as HTMLInputElement).checked)"
      /></label>
      <span class="min-w-0 flex-1 pt-0.5">
        <span :class="task.done && 'muted line-through'">{{ task.text }}</span>
        <span class="muted small block truncate"
          ><template v-if="named"
            ><NuxtLink class="link" :to="`/people/${task.person.id}`">{{
              task.person.name
            }}</NuxtLink>
            · </template
          >{{ task.for ? `for ${task.for}` : 'for anybody' }} · by {{ task.by }}</span
        ></span
      >
      <span class="small flex-none pt-0.5" :class="isLate(task) ? 'fault' : 'muted'">{{
        dueWords(task)
      }}</span>
      <button
        v-may="'DELETE /api/people/[id]/tasks/[task]'"
        type="button"
        class="muted min-h-6 min-w-6"
        :aria-label="`Delete: ${task.text}`"
        @click="remove(task)"
      >
        ×
      </button>
    </li>
  </ul>
</template>
