import { Readable } from 'node:stream'
import { setImmediate as breathe } from 'node:timers/promises'
import { exportFormats, exportWriter, type ExportFormat } from '~~/core/people'
import { exportPeople, type ExportChoice } from '~~/database/export'
import { readFields } from '~~/database/fields'
import { segmentById } from '~~/database/segments'

/** People as a file: all, a segment or some by id; CSV, JSON or vCard; all fields or the chosen ones. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const query = getQuery(event)
  const format = String(query.format ?? 'csv') as ExportFormat
  if (!exportFormats.includes(format))
    throw createError({ statusCode: 422, message: `There are ${exportFormats.join(', ')}.` })
  const segment = query.segment === undefined ? null : segmentById(db, Number(query.segment))
  if (segment === undefined) throw notFound('This segment is not on file.')
  const wanted = query.fields === undefined ? null : new Set(String(query.fields).split(','))
  const fields = readFields(db).filter(({ key }) => wanted === null || wanted.has(key))
  const ids =
    query.ids === undefined
      ? null
      : String(query.ids).split(',').map(Number).filter(Number.isSafeInteger).slice(0, 10_000)
  const choice: ExportChoice = { rule: segment && { kind: 'segment', segmentId: segment.id }, ids }
  const writer = exportWriter(format, fields)
  const name = (segment?.name ?? 'people').replace(/[^\p{L}\p{N} -]/gu, '').trim() || 'people'
  setResponseHeaders(event, {
    'Content-Type': writer.mime,
    'Content-Disposition': `attachment; filename="people.${writer.extension}"; filename*=UTF-8''${encodeURIComponent(`${name}.${writer.extension}`)}`,
    'Cache-Control': 'no-store',
  })
  const now = clock()
  return sendStream(event, Readable.from(pieces()))

  async function* pieces() {
    let first = true
    yield writer.head
    for (const batch of exportPeople(db, choice, now)) {
      let text = ''
      for (const person of batch) {
        text += writer.person(person, first)
        first = false
      }
      yield text
      // Others are served between two batches.
      await breathe()
    }
    yield writer.tail
  }
})
