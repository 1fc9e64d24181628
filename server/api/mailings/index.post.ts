import { object, string } from 'yup'
import { templateLetter, templates } from '~~/core/letters/templates'
import { listsWithCounts } from '~~/database/lists'
import { createMailing } from '~~/database/mailings'

/** A new mailing: a draft with the letter of a template, to the first list. */
export default defineEventHandler(async (event) => {
  const { template } = await readInput(event, object({ template: string().max(60) }))
  const { db, clock } = satchel()
  const listId = listsWithCounts(db)[0]?.id ?? null
  const name = templates.find(({ key }) => key === template)?.name ?? 'A new letter'
  return { id: createMailing(db, { name, listId, letter: templateLetter(template) }, clock()) }
})
