import { object, string } from 'yup'
import { readLists } from '~~/database/people'
import { createMailing } from '~~/database/mailings'

/** A new mailing: a draft with the letter of a template, to the first list. */
export default defineEventHandler(async (event) => {
  const { template } = await readInput(event, object({ template: string().max(60) }))
  const { db, clock } = satchel()
  const listId = readLists(db)[0]?.id ?? null
  const { letter, name } = templateWith(template ?? 'start')
  return { id: createMailing(db, { name, listId, letter }, clock()) }
})
