import { byNumberAsked, costsOf } from '~~/core/sign-ups'
import { DAY } from '~~/core/time'
import { askedVersions } from '~~/database/sign-ups'

/** What asking for more or fewer things achieved within a year: over all forms, and what each field cost this one. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const { id } = signUpOf(event)
  const versions = askedVersions(db, clock() - 365 * DAY)
  return { byNumber: byNumberAsked(versions), costs: costsOf(versions, id) }
})
