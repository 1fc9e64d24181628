/** A reader's own page: what they get, and how they change it. Looking at it changes nothing. */
export default defineEventHandler((event) => {
  const reader = readerOf(event)
  if (!reader) return noSuchLink(event)
  const saved = getQuery(event).saved !== undefined
  const words = reader.told.plain('saved')
  return answerReader(event, reader, saved ? { kind: 'said', words } : null)
})
