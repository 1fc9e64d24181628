import { readLetterFileApart } from '~~/cases/apart'
import { readLists } from '~~/database/people'
import { createMailing } from '~~/database/mailings'

const LARGEST = 2 * 1024 * 1024

/** A new mailing with the letter in a file: HTML, MJML or JSON, as the body of the request. */
export default defineEventHandler(async (event) => {
  const { db, clock } = satchel()
  const body = await readRawBody(event, false)
  const refuse = (message: string) => createError({ statusCode: 422, message })
  if (!body || body.length === 0) throw refuse('The file is empty.')
  if (body.length > LARGEST)
    throw refuse('This file is larger than 2 MB, which no letter is. Is it the right one?')
  const got = await readLetterFileApart(textOf(body)).catch((error: Error) => ({
    problem: error.message,
  }))
  if ('problem' in got) throw refuse(got.problem)
  const fileName = String(getQuery(event).name ?? '').replace(/\.\w{1,5}$/, '')
  const name = (got.letter.subject || fileName || 'From a file').slice(0, 120)
  const listId = readLists(db)[0]?.id ?? null
  const id = createMailing(db, { name, listId, letter: got.letter }, clock())
  return { id, notUnderstood: got.notUnderstood }
})

/** UTF-8, or what programs of another age wrote. */
function textOf(bytes: Buffer): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    return new TextDecoder('windows-1252').decode(bytes)
  }
}
