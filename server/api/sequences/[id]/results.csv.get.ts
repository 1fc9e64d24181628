import { csvRow } from '~~/core/people'
import { kindOfStep, readWhich, stepsInOrder, waysOf } from '~~/core/sequences'
import { mailingsOfSequence, mapOfVersion, standingAt, trafficOf } from '~~/database/sequences'

/**
 * The figures of the map that ran last as CSV (RFC 4180): a row for each way out of each step; of all rounds, or of those that
 * are asked for.
 */
export default defineEventHandler(async (event) => {
  const { db, clock } = satchel()
  const sequence = sequenceOf(event)
  const { id, version } = sequence
  const which = readWhich(getQuery(event))
  const asked = { sequenceId: id, days: 14, which, now: clock() }
  const { figures, replied } = await askLong(
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
  const rows = stepsInOrder(map).flatMap(({ id, step }, n) =>
    waysOf(step).map(({ words }, way) => {
      const mailingId = step.kind === 'mail' ? step.mailingId : null
      const mail = mailingId === null ? undefined : mails.get(mailingId)
      return [
        ...[n + 1, kindOfStep(step).name],
        ...[mailingId === null ? '' : (subjects.get(mailingId) ?? ''), words || 'on'],
        ...[traffic[id]?.[way] ?? 0, way === 0 ? (standing[id] ?? 0) : ''],
        ...(mailingId === null
          ? ['', '', '', '']
          : [
              ...[mail?.accepted ?? 0, mail?.opened ?? 0, mail?.clicked ?? 0],
              replied[mailingId] ?? 'not measured',
            ]),
      ].map(String)
    }),
  )
  return `\uFEFF${csvRow([...head, 'clicked', 'replied'])}${rows.map((row) => csvRow(row)).join('')}`
})
