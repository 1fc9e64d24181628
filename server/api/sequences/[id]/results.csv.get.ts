import { csvRow } from '~~/core/people'
import { stepsInOrder, waysOf, kindOfStep } from '~~/core/sequences'
import { mailingsOfSequence, mapOfVersion, standingAt, trafficOf } from '~~/database/sequences'

/** The figures of the map that ran last as CSV (RFC 4180): a row for each way out of each step. */
export default defineEventHandler((event) => {
  const { db } = satchel()
  const sequence = sequenceOf(event)
  const map = sequence.version ? mapOfVersion(db, sequence.id, sequence.version) : sequence.map
  const traffic = trafficOf(db, sequence.id)
  const standing = standingAt(db, sequence.id)
  const mails = new Map(mailingsOfSequence(db, sequence.id).map((mail) => [mail.id, mail]))
  setResponseHeaders(event, {
    'Content-Type': 'text/csv; charset=utf-8',
    'Content-Disposition': `attachment; filename="sequence-${sequence.id}.csv"`,
    'Cache-Control': 'no-store',
  })
  const head = ['step', 'kind', 'subject', 'way', 'went by', 'stand there', 'accepted', 'opened']
  const rows = stepsInOrder(map).flatMap(({ id, step }, n) =>
    waysOf(step).map(({ words }, way) => {
      const mail = step.kind === 'mail' ? mails.get(step.mailingId) : undefined
      const of = mail && [mail.accepted, mail.opened, mail.clicked].map((many) => many ?? 0)
      return [
        ...[n + 1, kindOfStep(step).name, mail?.subject ?? '', words || 'on'],
        ...[traffic[id]?.[way] ?? 0, way === 0 ? (standing[id] ?? 0) : ''],
        ...(of ?? ['', '', '']),
      ].map(String)
    }),
  )
  return `\uFEFF${csvRow([...head, 'clicked'])}${rows.map((row) => csvRow(row)).join('')}`
})
