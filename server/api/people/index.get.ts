import { countPeople, peoplePage, pulsesOf, valuesOf, type PeopleChoice } from '~~/database/people'

const PAGE = 100

/** A page of people with their pulses; `count` is of all that were chosen. */
export default defineEventHandler((event) => {
  const query = getQuery(event)
  const { db } = satchel()
  const choice: PeopleChoice = {
    listId: query.list ? Number(query.list) : undefined,
    setAside: query.aside === '1',
    search:
      typeof query.search === 'string' && query.search.trim() !== ''
        ? query.search.trim().slice(0, 100)
        : undefined,
  }
  const rows = peoplePage(db, choice, PAGE, Math.max(0, Number(query.offset) || 0))
  const pulses = pulsesOf(
    db,
    rows.map(({ id }) => id),
  )
  return {
    count: countPeople(db, choice),
    people: rows.map((row) => ({
      id: row.id,
      address: row.address,
      name: [row.first_name, row.last_name].filter(Boolean).join(' '),
      values: valuesOf(row),
      joinedAt: row.joined_at,
      pulse: pulses.get(row.id)!,
    })),
  }
})
