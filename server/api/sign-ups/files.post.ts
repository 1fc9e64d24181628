import { addFile, aboutFile } from '~~/database/sign-ups'

/** Keeps a file that a sign-up promises, as the body of the request, under its name. */
export default defineEventHandler(async (event) => {
  const { db, clock } = satchel()
  const bytes = await readRawBody(event, false)
  if (!bytes || bytes.length === 0)
    throw createError({ statusCode: 422, message: 'The file is empty.' })
  const name = fileName(String(getQuery(event).name ?? ''))
  return aboutFile(db, addFile(db, { name, mime: typeOf(name), bytes }, clock()))
})

/** A name without a path or anything that can't be seen in it. */
const fileName = (typed: string) =>
  typed
    .normalize('NFC')
    .replace(/^.*[/\\]/, '')
    // Nor what turns the direction of writing round, so that an ending looks like another.
    .replace(/[\p{Cc}\p{Cf}"]/gu, '')
    .trim()
    .slice(0, 120) || 'file'

/** By its ending; what is none of these is bytes. */
function typeOf(name: string): string {
  const types: Record<string, string> = {
    ...{ pdf: 'application/pdf', epub: 'application/epub+zip', zip: 'application/zip' },
    ...{ png: 'image/png', jpg: 'image/jpeg', jpeg: 'image/jpeg', mp3: 'audio/mpeg' },
    ...{ mp4: 'video/mp4', csv: 'text/csv', txt: 'text/plain', ics: 'text/calendar' },
  }
  return types[/\.(\w+)$/.exec(name)?.[1]?.toLowerCase() ?? ''] ?? 'application/octet-stream'
}
