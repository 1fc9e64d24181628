import { marksOf } from '~~/cases/sign-ups'
import { readFields, readLists, readTags } from '~~/database/people'
import { isPublished, versionsOf } from '~~/database/sign-ups'

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
    versions: versionsOf(db, id),
    lists: readLists(db).map(({ id, name }) => ({ id, name })),
    fields: readFields(db),
    tags: readTags(db).map(({ name }) => name),
    ...{ letterhead, sender, postalAddress: postal_address },
  }
})
