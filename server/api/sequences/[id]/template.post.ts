import { readSequenceFile, type SequenceMap } from '~~/core/sequences'
import { mapOfTemplate, sequenceTemplates } from '~~/core/sequences/templates'
import { transact, type Database } from '~~/database'
import { readCatalog } from '~~/database/segments'
import { addMailOf, keptFile, mapOfFile, type Sequence } from '~~/database/sequences'
import { templateInput } from '~~/shared/mailing-inputs'

/**
 * The map of a template, with a mailing for each of its letters. It is the page that takes it over, so that it can be undone.
 * Of an own one: also what of it is not there any more.
 */
export default defineEventHandler(async (event) => {
  const { key, kept } = await readInput(event, templateInput)
  const { db, clock } = satchel()
  const sequence = sequenceOf(event)
  if (sequence.state !== 'draft') throw refused('It has run, so it is not begun anew.')
  const began = kept
    ? fromKept(db, sequence, kept, clock())
    : fromTemplate(db, sequence, key, clock())
  if (!began) throw notFound('There is no such template.')
  return began
})

interface Began {
  map: SequenceMap
  missing: string[]
}

function fromTemplate(
  db: Database,
  sequence: Sequence,
  key: string | undefined,
  now: number,
): Began | null {
  const template = sequenceTemplates.find((one) => one.key === key)
  if (!template) return null
  const map = transact(db, () =>
    mapOfTemplate(template, (letter) => addMailOf(db, sequence, letter.subject, now, letter)),
  )
  return { map: { ...map, start: { ...map.start, rule: sequence.map.start.rule } }, missing: [] }
}

function fromKept(db: Database, sequence: Sequence, id: number, now: number): Began | null {
  const file = keptFile(db, id)
  const read = file === undefined ? null : readSequenceFile(file, readCatalog(db))
  if (!read || 'problem' in read) return null
  return { map: mapOfFile(db, sequence, read, now), missing: read.missing }
}
