import { addOwnWord } from '~~/database/letters'
import { ownWordInput } from '~~/shared/letter-inputs'

/** Keeps a word as the account's own: no proof asks for it again. */
export default defineEventHandler(async (event) => {
  const { word } = await readInput(event, ownWordInput)
  return { added: addOwnWord(satchel().db, word) }
})
