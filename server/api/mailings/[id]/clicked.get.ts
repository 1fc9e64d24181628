import { outgoingOf } from '~~/cases/letters'
import { firstLinkOf, forNobody } from '~~/core/letters'
import { letterSource } from '~~/core/letters/rendering'
import { variantsOf } from '~~/database/mailings'

/**
 * A mailing's letter (that of a variant) with all that anybody was shown, for showing the clicks on it: each link
 * leads to `#link-N`, by its number in the results.
 */
export default defineEventHandler(async (event) => {
  const { db, url } = satchel()
  const mailing = mailingOf(event)
  const no = Math.floor(Number(getQuery(event).variant) || 0)
  const variant = variantsOf(db, mailing.id).find((one) => one.no === no)
  if (no !== 0 && !variant) throw notFound('There is no such variant.')
  const { letter, frame } = outgoingOf(
    db,
    { ...mailing, letter_id: variant?.letter_id ?? mailing.letter_id },
    url,
    no,
  )
  const html = await letterSource(letter, frame, 'html', (_, n) => `#link-${firstLinkOf(no) + n}`)
  return { html: forNobody(html) }
})
