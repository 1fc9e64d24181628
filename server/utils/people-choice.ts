import type { PeopleChoice } from '~~/database/people'

/** Which people a table shows, out of a query or a form: `list`, `aside`, `search`. */
export function peopleChoice(given: Record<string, unknown>): PeopleChoice {
  const search = typeof given.search === 'string' ? given.search.trim().slice(0, 100) : ''
  return {
    listId: given.list ? Number(given.list) : undefined,
    suppressed: given.aside === '1',
    search: search || undefined,
  }
}
