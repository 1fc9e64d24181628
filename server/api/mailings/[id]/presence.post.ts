import { presenceInput } from '~~/shared/letter-inputs'

/** Says who is at this letter and in which block; the answer is who else is, and whether the block was free. */
export default defineEventHandler(async (event) => {
  const { tab, blockId, leaves } = await readInput(event, presenceInput)
  const { hostClock } = satchel()
  const { id } = mailingOf(event)
  if (leaves) {
    leave(id, tab)
    return { others: [], held: false }
  }
  const { id: userId, name } = author(event)
  return bePresent(id, { tab, userId, name, blockId }, hostClock())
})
