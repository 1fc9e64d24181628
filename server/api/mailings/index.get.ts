import { mailingsWithTotals } from '~~/database/mailings'
import { listsWithCounts } from '~~/database/lists'

export default defineEventHandler(() => {
  const { db } = satchel()
  const lists = new Map(listsWithCounts(db).map((list) => [list.id, list.name]))
  return mailingsWithTotals(db).map((mailing) => ({
    ...mailing,
    list: mailing.list_id === null ? null : (lists.get(mailing.list_id) ?? null),
  }))
})
