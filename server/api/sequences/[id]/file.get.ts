import { takeOutSequence } from '~~/database/sequences'

/** The sequence as it is drawn, as a JSON file that can be read in any account. */
export default defineEventHandler((event) => {
  const sequence = sequenceOf(event)
  const name = sequence.name.replace(/[^\p{L}\p{N} -]/gu, '').trim() || 'sequence'
  setResponseHeaders(event, {
    'Content-Type': 'application/json; charset=utf-8',
    'Content-Disposition': `attachment; filename="sequence.json"; filename*=UTF-8''${encodeURIComponent(`${name}.json`)}`,
    'X-Content-Type-Options': 'nosniff',
    'Cache-Control': 'no-store',
  })
  return JSON.stringify(takeOutSequence(satchel().db, sequence), null, 2)
})
