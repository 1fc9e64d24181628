<script setup lang="ts">
import { dataKinds, type DataChoice } from '~~/core/results'
import { hourOf } from '~~/core/time'

/** Exporting what came of mailings: what, from which, now or again and again; and what was exported. */
interface Out {
  id: number
  choice: DataChoice
  schedule_id: number | null
  mail_to: string | null
  counts: Partial<Record<string, number>> | null
  size: number | null
  created_at: number
  made_at: number | null
  state: string | null
  done: number | null
  total: number | null
  error: string | null
}
interface Schedule {
  id: number
  choice: DataChoice
  every: string
  mail_to: string | null
  next_at: number
}
const { dayAndTime } = useTimes()
const { answer, problem, reload } = useAnswer<{ outs: Out[]; schedules: Schedule[] }>(
  () => '/api/data-out',
)
const { answer: mailings } = useAnswer<{ id: number; name: string; started_at: number | null }[]>(
  () => '/api/mailings',
)
const nameOf = (id: number) => mailings.value?.find((one) => one.id === id)?.name ?? `mailing ${id}`
function aboutOf({ mailings: of, days, from, to }: DataChoice) {
  const which =
    of.length === 0
      ? 'All mailings'
      : of.length === 1
        ? nameOf(of[0]!)
        : several(of.length, 'mailing', 'mailings')
  const when = days
    ? `the last ${days === 1 ? 'day' : `${days} days`}`
    : from || to
      ? [from && `from ${from}`, to && `to ${to}`].filter(Boolean).join(' ')
      : 'since the beginning'
  return `${which}, ${when}`
}
const rowsOf = (out: Out) =>
  dataKinds.flatMap(({ key, name }) =>
    out.counts?.[key] === undefined ? [] : [`${name} ${count(out.counts[key])}`],
  )
const running = (out: Out) => out.state === 'waiting' || out.state === 'running'
// A file in the making has its progress told.
let timer: ReturnType<typeof setInterval> | undefined
watch(
  () => answer.value?.outs.some(running) ?? false,
  (on) => {
    clearInterval(timer)
    if (on) timer = setInterval(() => void reload(), 700)
  },
)
onBeforeUnmount(() => clearInterval(timer))
async function remove(out: Out) {
  if (await act(`/api/data-out/${out.id}`, 'DELETE')) await reload()
}
async function end(schedule: Schedule) {
  if (!(await act(`/api/data-out/schedules/${schedule.id}`, 'DELETE'))) return
  await reload()
  useNotices().say('The schedule has ended. What it made stays.', {
    label: 'Undo',
    run: async () => {
      const { choice, every, mail_to } = schedule
      const hour = hourOf(schedule.next_at, useSession().zone)
      const body = { ...choice, every, hour, mailTo: mail_to ?? '' }
      if (await act('/api/data-out', 'POST', body)) await reload()
    },
  })
}
const kilobytes = (size: number) => `${count(Math.max(1, Math.round(size / 1024)))} KB`
</script>

<template>
  <div>
    <h1>Export</h1>
    <p class="muted mt-0.5">
      What came of your mailings, person by person: one CSV for each kind, together in a ZIP.
    </p>
    <p v-if="problem" class="fault mt-3" role="alert">{{ problem }}</p>
    <div class="mt-3 grid grid-cols-[400px_1fr] items-start gap-3.5">
      <DataOutForm :mailings="(mailings ?? []).filter((one) => one.started_at)" @asked="reload" />
      <div class="min-w-0 space-y-3.5">
        <section class="sheet px-4 py-3">
          <h2>Exports</h2>
          <p v-if="answer && !answer.outs.length" class="muted mt-1">
            Nothing yet. Files stand here for 30 days.
          </p>
          <ul>
            <li
              v-for="out in answer?.outs ?? []"
              :key="out.id"
              class="border-t border-line-soft py-2.5 first:border-0"
            >
              <div class="flex items-center gap-3">
                <div class="min-w-0 flex-1">
                  <b class="font-[560]">{{ aboutOf(out.choice) }}</b>
                  <span class="muted small"
                    >{{ dayAndTime(out.created_at)
                    }}<template v-if="out.schedule_id"> · by schedule</template
                    ><template v-if="out.mail_to"> · told to {{ out.mail_to }}</template></span
                  >
                </div>
                <a
                  v-if="out.made_at"
                  class="btn btn-sm flex-none"
                  :href="`/api/data-out/${out.id}/file`"
                  download
                  >Download the ZIP, {{ kilobytes(out.size!) }}</a
                >
                <button
                  v-may="'DELETE /api/data-out/[id]'"
                  class="btn btn-sm flex-none"
                  @click="remove(out)"
                >
                  {{ running(out) ? 'Cancel' : 'Delete' }}
                </button>
              </div>
              <ProgressBar
                v-if="running(out)"
                class="mt-2"
                :done="out.done ?? 0"
                :total="out.total || 1"
                label="Exporting"
              />
              <p v-else-if="out.error" class="fault small mt-1">{{ out.error }}</p>
              <p v-else-if="out.made_at" class="muted small mt-0.5">
                {{ rowsOf(out).join(' · ') }}
              </p>
            </li>
          </ul>
        </section>
        <section v-if="answer?.schedules.length" class="sheet px-4 py-3">
          <h2>Again and again</h2>
          <ul>
            <li
              v-for="schedule in answer.schedules"
              :key="schedule.id"
              class="flex items-center gap-3 border-t border-line-soft py-2 first:border-0"
            >
              <span class="min-w-0 flex-1"
                ><b class="font-[560]">Every {{ schedule.every }}</b
                >: {{ aboutOf(schedule.choice) }}
                <span class="muted small"
                  >next {{ dayAndTime(schedule.next_at)
                  }}<template v-if="schedule.mail_to">
                    · a link goes to {{ schedule.mail_to }}</template
                  ></span
                ></span
              >
              <button
                v-may="'DELETE /api/data-out/schedules/[id]'"
                class="btn btn-sm flex-none"
                @click="end(schedule)"
              >
                End it
              </button>
            </li>
          </ul>
        </section>
      </div>
    </div>
  </div>
</template>
