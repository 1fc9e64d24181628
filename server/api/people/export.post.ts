import { Readable } from 'node:stream'
import { setImmediate as breathe } from 'node:timers/promises'
import { exportColumns, exportFormats, exportWriter, type ExportFormat } from '~~/core/people'
import { exportPeople, type ExportChoice } from '~~/database/exports'
import { readFields } from '~~/database/people'
import { segmentById } from '~~/database/segments'

/**
 * People as a file, asked for by a form: those of a segment, some by their ids, or those a table shows;
 * CSV, JSON or vCard; all columns, or the chosen ones in their order.
 */
export default defineEventHandler(async (event) => {
  const { db, clock } = satchel()
  const form = ((await readBody(event)) ?? {}) as Record<string, unknown>
  const format = text(form.format ?? 'csv') as ExportFormat
  if (!exportFormats.includes(format))
    throw createError({ statusCode: 422, message: `There are ${exportFormats.join(', ')}.` })
  const known = new Map(
    exportColumns(readFields(db), account().currency).map((column) => [column.key, column]),
  )
  const columns =
    form.columns === undefined
      ? [...known.values()]
      : text(form.columns)
          .split(',')
          .flatMap((key) => known.get(key) ?? [])
  const segment = form.segment ? segmentById(db, Number(form.segment)) : null
  if (segment === undefined) throw notFound('This segment is not on file.')
  const choice: ExportChoice =
    form.ids === undefined
      ? { shown: peopleChoice(form) }
      : { ids: text(form.ids).split(',').map(Number).filter(Number.isSafeInteger) }
  const writer = exportWriter(format, columns)
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

function text(value: unknown): string {
  return typeof value === 'string' ? value : ''
}
