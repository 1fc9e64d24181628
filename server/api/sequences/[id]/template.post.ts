import { mapOfTemplate, sequenceTemplates } from '~~/core/sequences/templates'
import { addMailOf } from '~~/database/sequences'
import { transact } from '~~/database'
import { templateInput } from '~~/shared/mailing-inputs'

/** The map of a template, with a mailing for each of its letters. It is the page that takes it over, so that it can be undone. */
export default defineEventHandler(async (event) => {
  const { key } = await readInput(event, templateInput)
  const { db, clock } = satchel()
  const sequence = sequenceOf(event)
  const template = sequenceTemplates.find((one) => one.key === key)
  if (!template) throw notFound('There is no such template.')
  if (sequence.state !== 'draft') throw refused('It has run, so it is not begun anew.')
  const map = transact(db, () =>
    mapOfTemplate(template, (letter) => addMailOf(db, sequence, letter.subject, clock(), letter)),
  )
  return { map: { ...map, start: { ...map.start, rule: sequence.map.start.rule } } }
})
