import { boolean, object } from 'yup'
import { setWebVersion } from '~~/database/sending'

/** Gives the letter a public address, or takes it away for good. */
export default defineEventHandler(async (event) => {
  const { on } = await readInput(event, object({ on: boolean().required() }))
  const { db, url } = satchel()
  const key = setWebVersion(db, mailingOf(event).letter_id, on)
  return { url: key && `${url}/w/${key}` }
})
