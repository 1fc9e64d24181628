<script setup lang="ts">
import type { Task } from '~~/core/people'
import type { Day } from '~~/core/time'

/** What the team is to do about people, the most pressing first; and what it did last. */
const route = useRoute()
const session = useSession()
interface Answer {
  tasks: Task[]
  done: Task[]
  open: number
  due: number
  today: Day
  team: string[]
}
const { answer, problem, reload } = useAnswer<Answer>(() => '/api/tasks')
const views = [
  { value: 'to-do', name: 'To do' },
  { value: 'done', name: 'Done' },
] as const
/** What is looked at has an address. */
const view = computed({
  get: () => (route.query.view === 'done' ? ('done' as const) : ('to-do' as const)),
  set: (next) => put({ view: next === 'done' ? next : undefined }),
})
const whose = computed(() => (route.query.for === 'me' ? 'me' : 'all'))
const put = (change: Record<string, string | undefined>) =>
  void goTo({ query: { ...route.query, ...change } })
const shown = computed(() => {
  const all = (view.value === 'done' ? answer.value?.done : answer.value?.tasks) ?? []
  const mine = session.user?.address
  return whose.value === 'me' ? all.filter((task) => task.for === null || task.for === mine) : all
})
const sentence = computed(() => {
  if (!answer.value) return ''
  const { open, due } = answer.value
  if (open === 0) return 'Nothing is to do.'
  const first = open === 1 ? 'One task is to do' : `${count(open)} tasks are to do`
  return due === 0 ? `${first}, none by today.` : `${first}, ${count(due)} by today.`
})
const more = computed(() => {
  if (!answer.value || view.value === 'done') return 0
  return answer.value.open - answer.value.tasks.length
})
</script>

<template>
  <div class="mx-auto max-w-4xl px-6 py-5">
    <div class="flex items-end gap-3">
      <div>
        <h1>Tasks</h1>
        <p class="muted mt-0.5" role="status">{{ sentence }}</p>
      </div>
      <select
        class="field ml-auto !w-auto"
        aria-label="Whose"
        :value="whose"
        @change="
          put({ for: ($event.target as HTMLSelectElement).value === 'me' ? 'me' : undefined })
        "
      >
        <option value="all">everybody’s</option>
        <option value="me">mine, and anybody’s</option>
      </select>
      <ChoiceButtons v-model="view" label="Which tasks" :options="[...views]" />
    </div>
    <p v-if="problem" class="fault mt-3" role="alert">{{ problem }}</p>
    <p v-else-if="!answer" class="muted mt-3" role="status">Looking…</p>
    <section v-if="answer" class="sheet mt-3.5" aria-label="Tasks">
      <p v-if="!shown.length" class="muted px-3.5 py-3">
        {{
          view === 'done'
            ? 'Nothing was done yet.'
            : 'Tasks are written on the page of a person, or by a sequence with “Do”. What is due stands here and on Today.'
        }}
      </p>
      <TaskList :tasks="shown" :today="answer.today" named @change="reload" />
      <p v-if="more > 0" class="muted small px-3.5 py-2">and {{ count(more) }} more, due later</p>
    </section>
  </div>
</template>
