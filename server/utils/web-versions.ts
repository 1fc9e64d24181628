import { webPage } from '~~/cases/letters'
import { webMark } from '~~/database/sending'

/** A page that is kept, as bytes, and what it was made of. */
interface Kept {
  mark: string
  page: Promise<Buffer>
  /** Until then nobody looks whether anything has changed, ms of the process. */
  until: number
}

/** As many letters are kept as many people may read at a time. */
const MOST = 200
/** Whether something has changed is asked so often, ms: a change is seen at once for anybody who looks. */
const LOOK = 100
const kept = new Map<string, Kept>()

/** The web version of the letter with a key: made once, and kept until something of it changes. Null: there is none. */
export async function webVersion(key: string): Promise<Buffer | null> {
  const known = kept.get(key)
  if (known && performance.now() < known.until) return known.page
  const { db, url } = satchel()
  const mark = webMark(db, key)
  if (mark === null) {
    kept.delete(key)
    return null
  }
  const until = performance.now() + LOOK
  if (known?.mark === mark) {
    known.until = until
    return known.page
  }
  // Whoever comes while it is made waits for the same one.
  const page = webPage(db, key, url)
  kept.delete(key)
  kept.set(key, { mark, page, until })
  page.catch(() => kept.get(key)?.page === page && kept.delete(key))
  if (kept.size > MOST) kept.delete(kept.keys().next().value!)
  return page
}
