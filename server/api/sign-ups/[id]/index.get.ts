import { marksOf } from '~~/cases/sign-ups'
import { readFields, readLists, readTags } from '~~/database/people'
import { teamAddresses } from '~~/database/account'
import { startableSequences } from '~~/database/sequences'
import { aboutFile, isPublished, runningTest, versionsOf } from '~~/database/sign-ups'

/** A sign-up with its form, what keeps that from going live, and what there is to choose from. */
export default defineEventHandler((event) => {
  const { db, url } = satchel()
  const signUp = signUpOf(event)
  const { id, key, name, state, form, revision, live_version } = signUp
  const { letterhead, name: sender, postal_address } = account()
  return {
    ...{ id, key, name, state, form, revision, liveVersion: live_version },
    published: isPublished(db, signUp),
    home: url,
    address: `${url}/s/${key}`,
    marks: marksOf(db, form),
    plain: plainFormOf(signUp),
    versions: versionsOf(db, id),
    test: runningTest(db, id),
    lists: readLists(db).map(({ id, name }) => ({ id, name })),
    fields: readFields(db),
    tags: readTags(db).map(({ name }) => name),
    file: aboutFile(db, form.promised.fileId),
    sequences: startableSequences(db).map(({ id, name, list_id }) => ({
      id,
      name,
      listId: list_id,
    })),
    team: teamAddresses(db),
    ...{ letterhead, sender, postalAddress: postal_address },
  }
})
