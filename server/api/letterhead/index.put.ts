import { readLetterhead } from '~~/core/letters'
import { saveLetterhead } from '~~/database/account'
import { ownLetterheadVersion } from '~~/database/letters'
import { ownLetterheadInput } from '~~/shared/letter-inputs'

/** Changes the account's own letterhead over the version its editor saw; what is odd in it stays as it is by default. */
export default defineEventHandler(async (event) => {
  const { look, version } = await readInput(event, ownLetterheadInput)
  const { db } = satchel()
  if (version !== ownLetterheadVersion(db))
    throw overtaken('Somebody else changed the letterhead meanwhile. Look at theirs first.')
  const kept = readLetterhead(look)
  saveLetterhead(db, kept)
  return { look: kept, version: ownLetterheadVersion(db) }
})
