import { csvRow } from '~~/core/people'
import {
  BACK,
  kindOfStep,
  mailingsOfStep,
  stepsInOrder,
  wayName,
  waysOf,
  type GoalResults,
} from '~~/core/sequences'
import { mailingsOfSequence, mapOfVersion, standingAt, trafficOf } from '~~/database/sequences'

/**
 * The figures of the map that ran last as CSV (RFC 4180): a row for each way out of each step; of all rounds, or of those that
 * are asked for.
 */
export default defineEventHandler(async (event) => {
  const { db, clock } = satchel()
  const sequence = sequenceOf(event)
  const { id, version } = sequence
  const which = roundsOf(event, sequence)
  const asked = { sequenceId: id, days: 14, which, now: clock() }
  const { figures, replied, goals } = await askLong(
    'sequenceResults',
    asked,
    `figures of sequence ${id} for ${me(event).user.id}`,
  )
  const map = figures?.map ?? (version ? mapOfVersion(db, id, version) : sequence.map)
  const traffic = figures?.traffic ?? trafficOf(db, id)
  const standing = figures?.standing ?? standingAt(db, id)
  const mailings = mailingsOfSequence(db, id)
  const subjects = new Map(mailings.map((mail) => [mail.id, mail.subject]))
  const mails = new Map((figures?.mailings ?? mailings).map((mail) => [mail.id, mail]))
  setResponseHeaders(event, {
    'Content-Type': 'text/csv; charset=utf-8',
    'Content-Disposition': `attachment; filename="sequence-${id}.csv"`,
    'Cache-Control': 'no-store',
  })
  const head = ['step', 'kind', 'subject', 'way', 'went by', 'stand there', 'accepted', 'opened']
  const rows = stepsInOrder(map).flatMap(({ id, step }, n) => {
    const [first = null, ...versions] = mailingsOfStep(step)
    const lines = [
      ...waysOf(step).map(({ words }, way) => ({
        mailingId: first,
        words: words || 'on',
        passed: [traffic[id]?.[way] ?? 0, way === 0 ? (standing[id] ?? 0) : ''],
      })),
      // Who reached a goal goes no way of its own, where it has none.
      ...(step.kind === 'goal' && !step.ways
        ? [{ mailingId: null, words: 'reached it', passed: [traffic[id]?.[1] ?? 0, ''] }]
        : []),
      ...(step.kind === 'wait' && step.back
        ? [{ mailingId: null, words: 'went back', passed: [traffic[id]?.[BACK] ?? 0, ''] }]
        : []),
      // People go by a step, whichever version of its mail they get.
      ...versions.map((mailingId, n) => ({
        mailingId,
        words: `version ${wayName(n + 1)}`,
        passed: ['', ''],
      })),
    ]
    const goal = goals.find((one) => one.step === id)
    return lines.map(({ mailingId, words, passed }) => {
      const mail = mailingId === null ? undefined : mails.get(mailingId)
      return [
        ...[n + 1, kindOfStep(step).name],
        ...[mailingId === null ? '' : (subjects.get(mailingId) ?? ''), words],
        ...passed,
        ...(mailingId === null
          ? ['', '', '', '']
          : [
              ...[mail?.accepted ?? 0, mail?.opened ?? 0, mail?.clicked ?? 0],
              replied[mailingId] ?? 'not measured',
            ]),
        ...(words === 'reached it' && goal ? ofGoal(goal) : ['', '', '', '', '', '']),
      ].map(String)
    })
  })
  return `\uFEFF${csvRow([...head, 'clicked', 'replied', ...ofGoals])}${rows.map((row) => csvRow(row)).join('')}`
})

const ofGoals = ['within days', 'led', 'reached of them', 'money', 'held out', 'reached of those']

/** What came of a goal within its days: of those led through, in minor units, and of those held out. */
function ofGoal({ days, led, heldOut }: GoalResults) {
  const hits = (rate: number, of: number) => Math.round(rate * of)
  return [
    ...[days, led.of, hits(led.reached.rate, led.of), led.money],
    ...(heldOut ? [heldOut.of, hits(heldOut.lift.heldOut, heldOut.of)] : ['', '']),
  ]
}
