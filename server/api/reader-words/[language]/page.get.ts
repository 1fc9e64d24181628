import { readerPageHtml, toldIn } from '~~/core/readers'
import { DAY } from '~~/core/time'
import { openFields, readLists } from '~~/database/people'
import { readerWords } from '~~/database/readers'

/** The reader's page in a language, for nobody in particular, to be looked at. */
export default defineEventHandler((event) => {
  const language = readerLanguageOf(event)
  const { db, clock } = satchel()
  const { name, zone } = account()
  const told = toldIn(readerWords(db, language), language, zone)
  const lists = readLists(db).map(({ id, public_name, public_about, public_often }, i) => ({
    ...{ id, name: public_name, about: public_about, often: public_often },
    ...(i === 0
      ? { state: 'subscribed' as const, since: clock() - 90 * DAY }
      : { state: null, since: null }),
  }))
  const page = {
    sender: name,
    address: 'reader@letters.example',
    suppressed: false,
    lists,
    limits: { pausedUntil: null, oneInDays: null },
    fields: openFields(db).map((field) => ({ field, value: null })),
  }
  const title = told.plain('pageTitle')
  const body = `<div inert>${readerPageHtml(page, told)}</div>`
  const html = publicPage(event, { title, body, language, wide: true })
  setResponseHeader(event, 'Content-Type', 'application/json; charset=utf-8')
  return { html }
})
