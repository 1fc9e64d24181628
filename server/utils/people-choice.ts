import type { TableChoice } from '~~/database/segments'

/** Which people a table shows, out of a query or a form: `list`, `tag`, `segment`, `aside`, `search`. */
export function peopleChoice(given: Record<string, unknown>): TableChoice {
  const search = typeof given.search === 'string' ? given.search.trim().slice(0, 100) : ''
  const id = (value: unknown) => (value ? Number(value) || 0 : undefined)
  return {
    listId: id(given.list),
    tagId: id(given.tag),
    segmentId: id(given.segment),
    suppressed: given.aside === '1',
    search: search || undefined,
  }
}
