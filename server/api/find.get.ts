import { peoplePage } from '~~/database/people'
import { mailingsWithTotals } from '~~/database/mailings'

/** People and mailings whose name has these words, for finding anything. */
export default defineEventHandler((event) => {
  const words = String(getQuery(event).q ?? '')
    .trim()
    .slice(0, 100)
  if (words.length < 2) return { people: [], mailings: [] }
  const { db } = satchel()
  const lower = words.toLowerCase()
  return {
    people: peoplePage(db, { search: words }, 6, 0).map((row) => ({
      id: row.id,
      address: row.address,
      name: [row.first_name, row.last_name].filter(Boolean).join(' '),
    })),
    mailings: mailingsWithTotals(db)
      .filter(
        (mailing) =>
          mailing.name.toLowerCase().includes(lower) ||
          mailing.subject.toLowerCase().includes(lower),
      )
      .slice(0, 6)
      .map(({ id, name, state }) => ({ id, name, state })),
  }
})
