/** The values people have most often for a field. */
export default defineEventHandler((event) =>
  askLong('values', { key: String(getQuery(event).field ?? '') }),
)
