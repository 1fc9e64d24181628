import { readLetterhead } from '~~/core/letters'

/** A letter with a bit of everything in a letterhead that is not saved yet. */
export default defineEventHandler(async (event) => {
  const letterhead = readLetterhead(await readBody(event))
  return letterSample(sampleLetter(), { ...letterFrame({ list_id: null }), letterhead })
})
