import { marksOf } from '~~/cases/sign-ups'
import { MOST_TESTED } from '~~/core/sign-ups'
import { publishSignUp, runningTest } from '~~/database/sign-ups'
import { signUpPublishInput } from '~~/shared/sign-up-inputs'

/** Publishes the draft that its editor saw, where nothing keeps it from going live. */
export default defineEventHandler(async (event) => {
  const { revision, asTest } = await readInput(event, signUpPublishInput)
  const { db, clock } = satchel()
  const { id, form, state, live_version } = signUpOf(event)
  if (state === 'ended') throw refused('It has ended. Make a copy to begin again.')
  const blocker = marksOf(db, form).find(({ level }) => level === 'blocker')
  if (blocker) throw refused(`${blocker.title}. ${blocker.detail}`)
  if (asTest && (live_version === null || state !== 'live'))
    throw refused('There is nothing live to test it against.')
  if (asTest && (runningTest(db, id)?.versions.length ?? 0) >= MOST_TESTED)
    throw refused(`A test has at most ${MOST_TESTED} versions. End this one first.`)
  const { name } = me(event).user
  const version = publishSignUp(db, id, revision, name, clock(), asTest)
  if (version === null)
    throw overtaken('Somebody else has changed this sign-up in the meantime. Look at theirs first.')
  return { version }
})
