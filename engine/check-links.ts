import type { LinkCheck } from '../core/proof'
import { linksToCheck, saveLinkCheck } from '../database/letters'
import { askWeb, type Way } from './ask-web'
import type { Work } from './engine'
import { severalAtOnce } from './several-at-once'

/** Asks the links that wait to be asked. */
export const linkChecker = (): Work =>
  severalAtOnce(
    8,
    ({ db }, many) => linksToCheck(db, many),
    async ({ db, clock, settings }, url) =>
      saveLinkCheck(db, url, await askLink(url, settings), clock()),
  )

/** What a link answers at its end: the status after redirects, or why nothing came. The body is not read. */
export async function askLink(url: string, way: Way): Promise<LinkCheck> {
  const status = await statusOf(url, 'HEAD', way)
  return status.status === 405 || status.status === 501 ? statusOf(url, 'GET', way) : status
}

async function statusOf(url: string, method: 'HEAD' | 'GET', way: Way): Promise<LinkCheck> {
  const got = await askWeb(url, method, way)
  if ('problem' in got) return got
  got.answer.destroy()
  return { status: got.answer.statusCode!, problem: null }
}
