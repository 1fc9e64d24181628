import { nameOrAddress } from '~~/core/people'
import { asDrawnBy, renderings } from '~~/core/letters/rendering'

/** The letter as classes of mail program draw it, for one reader; see `readingOf`. */
export default defineEventHandler(async (event) => {
  const { merged, reader } = await readingOf(event)
  return {
    subject: merged.subject,
    text: merged.text,
    reader: reader ? nameOrAddress(reader) : null,
    drawn: renderings.map(({ key, name, about }) => ({
      key,
      name,
      about,
      html: asDrawnBy(key, merged.html),
    })),
  }
})
