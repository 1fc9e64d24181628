/** Values on file that a rule may ask for, by how they begin. */
export default defineEventHandler((event) =>
  askLong(
    'valuesFound',
    { text: String(getQuery(event).text ?? '').slice(0, 100), now: satchel().clock() },
    'values found',
  ),
)
