import { marksOf } from '~~/cases/sign-ups'
import { publishSignUp } from '~~/database/sign-ups'
import { signUpPublishInput } from '~~/shared/sign-up-inputs'

/** Publishes the draft that its editor saw, where nothing keeps it from going live. */
export default defineEventHandler(async (event) => {
  const { revision } = await readInput(event, signUpPublishInput)
  const { db, clock } = satchel()
  const { id, form, state } = signUpOf(event)
  if (state === 'ended') throw refused('It has ended. Make a copy to begin again.')
  const blocker = marksOf(db, form).find(({ level }) => level === 'blocker')
  if (blocker) throw refused(`${blocker.title}. ${blocker.detail}`)
  const { name } = me(event).user
  const version = publishSignUp(db, id, revision, name, clock())
  if (version === null)
    throw overtaken('Somebody else has changed this sign-up in the meantime. Look at theirs first.')
  return { version }
})
