import { endTest } from '~~/database/sign-ups'
import { endTestInput } from '~~/shared/sign-up-inputs'

/** Ends the test of versions that runs: one of them is kept, or what stood before goes on. */
export default defineEventHandler(async (event) => {
  const { keep } = await readInput(event, endTestInput)
  const { db, clock } = satchel()
  if (!endTest(db, signUpOf(event).id, keep, clock()))
    throw refused('No test with this version is running.')
  return { ok: true }
})
