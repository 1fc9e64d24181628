/** The versions of the letter that go out, with how many people get each. */
export default defineEventHandler(async (event) => {
  const mailing = mailingOf(event)
  const { user } = me(event)
  const asker = `renditions of ${user.id}`
  return askLong('renditions', { mailingId: mailing.id, now: satchel().clock() }, asker)
})
