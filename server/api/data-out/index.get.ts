import { choiceOf, listDataOuts, listDataSchedules } from '~~/database/exports'

/** What was taken out, and the schedules by which it is. */
export default defineEventHandler(() => {
  const { db } = satchel()
  return {
    outs: listDataOuts(db).map((out) => ({
      ...out,
      choice: choiceOf(out),
      counts: out.counts ? (JSON.parse(out.counts) as Record<string, number>) : null,
    })),
    schedules: listDataSchedules(db).map((schedule) => ({
      ...schedule,
      choice: choiceOf(schedule),
    })),
  }
})
