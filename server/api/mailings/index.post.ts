import { startingLetter } from '~~/core/letters'
import { listsWithCounts } from '~~/database/lists'
import { createMailing } from '~~/database/mailings'

/** A new mailing: a draft with the starting letter, to the first list. */
export default defineEventHandler(() => {
  const { db, clock } = satchel()
  const listId = listsWithCounts(db)[0]?.id ?? null
  return {
    id: createMailing(db, { name: 'A new letter', listId, letter: startingLetter() }, clock()),
  }
})
