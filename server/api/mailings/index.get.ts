import { mailingsWithTotals } from '~~/database/mailings'
import { readLists } from '~~/database/people'

export default defineEventHandler(() => {
  const { db } = satchel()
  const lists = new Map(readLists(db).map((list) => [list.id, list.name]))
  return mailingsWithTotals(db).map((mailing) => ({
    ...mailing,
    list: mailing.list_id === null ? null : (lists.get(mailing.list_id) ?? null),
  }))
})
