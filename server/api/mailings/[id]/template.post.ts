import { object, string } from 'yup'
import { inTemplate } from '~~/core/letters/templates'
import { letterOf } from '~~/database/letters'

/** The letter of a mailing poured into a template. Nothing is saved: the page takes it as a change, to be undone. */
export default defineEventHandler(async (event) => {
  const { template } = await readInput(event, object({ template: string().max(60).required() }))
  const mailing = unsentMailingOf(event)
  const { version: _version, ...letter } = letterOf(satchel().db, mailing.letter_id)
  return inTemplate(letter, templateWith(template).letter)
})
