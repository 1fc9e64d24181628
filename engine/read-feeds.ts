import type { IncomingMessage } from 'node:http'
import type { FeedEntry } from '../core/letters'
import { feedsToRead, saveFeed } from '../database/letters'
import { askWeb } from './ask-web'
import type { Engine, Work } from './engine'
import { severalAtOnce } from './several-at-once'

const MOST_BYTES = 2_000_000

/** Reads the feeds that wait to be read. */
export const feedReader = (): Work =>
  severalAtOnce(
    4,
    ({ db }, many) => feedsToRead(db, many),
    async (engine, url) => saveFeed(engine.db, url, await toldBy(engine, url), engine.clock()),
  )

/** What a feed tells, or why it can't be read, in words. */
export async function toldBy(
  { settings, readFeed }: Pick<Engine, 'settings' | 'readFeed'>,
  url: string,
): Promise<{ entries: FeedEntry[] } | { problem: string }> {
  const got = await askWeb(url, 'GET', settings)
  if ('problem' in got) return { problem: `The feed can’t be read: ${got.problem}.` }
  const { answer } = got
  if (answer.statusCode !== 200) {
    answer.destroy()
    return { problem: `The feed’s address answers ${answer.statusCode}.` }
  }
  try {
    return { entries: await readFeed(await bodyOf(answer), got.url) }
  } catch (error) {
    if (answer.errored)
      return { problem: 'The feed can’t be read: it takes longer than 15 seconds.' }
    return { problem: error instanceof Error ? error.message : String(error) }
  }
}

async function bodyOf(answer: IncomingMessage): Promise<string> {
  const parts: Buffer[] = []
  let bytes = 0
  for await (const part of answer as AsyncIterable<Buffer>) {
    bytes += part.length
    if (bytes > MOST_BYTES) throw new Error('The feed is larger than 2 MB.')
    parts.push(part)
  }
  return Buffer.concat(parts).toString('utf8')
}
