<script setup lang="ts">
import { dayLabel } from '~~/core/time'
import type { TodaySheet } from '~~/core/results'

const session = useSession()
const { answer: today, problem, reload } = useAnswer<TodaySheet>(() => '/api/today')
const coming = computed(
  () =>
    today.value?.mailings.filter(
      (one) =>
        one.state === 'scheduled' &&
        one.at > today.value!.now &&
        one.at < today.value!.now + 7 * 86_400_000,
    ) ?? [],
)
const sentence = computed(() => {
  if (!today.value) return ''
  const mails = coming.value.length
  const most = coming.value.reduce((sum, one) => sum + one.recipients, 0)
  const things = today.value.waiting.length
  const number = (n: number) =>
    ['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine'][n] ?? String(n)
  const first =
    mails === 0
      ? 'Nothing is set to go out in the next 7 days.'
      : `${number(mails)} ${mails === 1 ? 'mailing goes' : 'mailings go'} out in the next 7 days, ${count(most)} messages.`
  const { due } = today.value.tasks
  const tasks = due === 0 ? '' : ` ${number(due)} ${due === 1 ? 'task is' : 'tasks are'} due.`
  return `${first} ${things === 0 ? 'Nothing waits' : `${number(things)} ${things === 1 ? 'thing waits' : 'things wait'}`} for you.${tasks}`
})
</script>

<template>
  <div class="px-6 py-5">
    <p v-if="problem" class="fault" role="alert">{{ problem }}</p>
    <template v-if="today">
      <div class="flex items-end justify-between">
        <div>
          <h1>{{ dayLabel(today.now, session.zone) }}</h1>
          <p class="muted mt-0.5">{{ sentence }}</p>
        </div>
        <div class="flex gap-2">
          <NuxtLink v-may="'POST /api/imports'" to="/people/import" class="btn"
            >Import people</NuxtLink
          ><button v-may="'POST /api/mailings'" class="btn btn-go" @click="writeLetter">
            Write a letter
          </button>
        </div>
      </div>
      <div class="sheet mt-3.5"><RunSheet :today="today" /></div>
      <div class="mt-4 grid grid-cols-[1fr_400px] items-start gap-4">
        <div class="grid content-start gap-4">
          <WaitingList :waiting="today.waiting" />
          <DueTasks v-if="today.tasks.open" :tasks="today.tasks" @change="reload" />
        </div>
        <div class="grid content-start gap-4">
          <GrowthChart :people="today.people" /><StandingGlance :standing="today.standing" />
        </div>
      </div>
    </template>
  </div>
</template>
