import { drawing, pictureInWidth, withPlaySign } from '~~/cases/letters'
import { keepSize, pictureByHash, sizedPicture } from '~~/database/letters'

/** Widths that are made: few enough that nobody fills the disk by asking for all of them. */
const STEP = 50
const WIDEST = 1200

/**
 * A picture of a letter: `/p/HASH`, or `/p/HASH-600` made to a width, or `/p/HASH-600-play`
 * with a play sign on it; or a drawing that ships with Satchel, by its name and colours. Its name is the hash of its bytes, so it
 * never changes.
 */
export default defineEventHandler(async (event) => {
  const asked = getRouterParam(event, 'hash')!
  const drawn = await drawing(asked.replace(/-play$/, ''))
  if (drawn) {
    const picture = { mime: 'image/png', bytes: drawn }
    return answered(asked.endsWith('-play') ? await withPlaySign(picture) : picture)
  }
  const named = /^([0-9a-f]{32})(?:-(\d{2,4})(-play)?)?$/.exec(asked)
  const { db } = satchel()
  const whole = named ? pictureByHash(db, named[1]!) : undefined
  if (!named || !whole) throw notFound('There is no such picture.')
  const sized = named[2] ? await inWidth(named[1]!, Number(named[2])) : whole
  const picture = named[3] ? await withPlaySign(sized) : sized
  return answered(picture)

  function answered({ mime, bytes }: { mime: string; bytes: Uint8Array }) {
    setResponseHeaders(event, {
      'Content-Type': mime,
      'Cache-Control': 'public, max-age=31536000, immutable',
      'X-Content-Type-Options': 'nosniff',
      'Content-Security-Policy': "default-src 'none'; sandbox",
    })
    return bytes
  }

  async function inWidth(hash: string, asked: number) {
    const width = Math.min(WIDEST, Math.max(STEP, Math.ceil(asked / STEP) * STEP))
    if (width >= whole!.width) return whole!
    const before = sizedPicture(db, hash, width)
    if (before) return before
    const made = await pictureInWidth(whole!, width)
    // A smaller picture that weighs more helps nobody.
    const lighter = made.bytes.length < whole!.bytes.length ? made : whole!
    keepSize(db, { hash, width, mime: lighter.mime, bytes: lighter.bytes })
    return lighter
  }
})
