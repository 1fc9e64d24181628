import { sendingsIn } from '~~/database/sign-ups'

/** What is kept for a look, the latest first. */
export default defineEventHandler((event) =>
  sendingsIn(satchel().db, signUpOf(event).id, 'for-a-look', 200).map(
    ({ id, at, address, doubt, given, page, over_due }) => ({
      ...{ id, at, address, doubt, page, given },
      droppedAt: over_due,
    }),
  ),
)
