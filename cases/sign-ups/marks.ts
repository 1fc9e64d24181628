import { partsOf, signUpMarks, type SignUpForm, type SignUpMark } from '../../core/sign-ups'
import type { Database } from '../../database'
import { readAccount } from '../../database/account'
import { readFields, readLists } from '../../database/people'
import { startableSequences } from '../../database/sequences'
import { aboutFile, usedByLetters } from '../../database/sign-ups'

/** What keeps a form from going live, and what should be looked at, as things stand now. */
export function marksOf(db: Database, form: SignUpForm): SignUpMark[] {
  const account = readAccount(db)!
  const { usedBy, looked } = usedByLetters(
    db,
    partsOf(form, 'field').map(({ field }) => field),
  )
  return signUpMarks(form, {
    lists: new Map(readLists(db).map(({ id, name }) => [id, name])),
    fields: new Map(readFields(db).map((field) => [field.key, field])),
    letterhead: account.letterhead,
    postalAddress: account.postal_address,
    usedBy,
    lettersLooked: looked,
    files: new Set(aboutFile(db, form.promised.fileId) ? [form.promised.fileId!] : []),
    sequences: new Map(
      startableSequences(db).map(({ id, name, state, list_id }) => [
        id,
        { name, running: state === 'running', listId: list_id },
      ]),
    ),
  })
}
