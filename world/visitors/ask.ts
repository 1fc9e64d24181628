import { request } from 'node:http'

/** What came back. */
export interface Answer {
  status: number
  text: string
}

/** Waits for an answer at most so long, ms of the host's. */
const PATIENCE = 10_000
const MOST_BYTES = 1_000_000

/**
 * Asks as somebody who comes from an address of this machine's own (127.0.0.0/8), so that visitors are told apart as they
 * would be; where the machine has but one such address, they all come from that.
 * @param through A proxy's address, which is asked for the whole URL.
 */
export async function askFrom(
  from: string,
  url: string,
  ask: { method?: string; headers?: Record<string, string>; body?: string; through?: string } = {},
): Promise<Answer> {
  try {
    return await oneAnswer(from, url, ask)
  } catch (cause) {
    if ((cause as NodeJS.ErrnoException).code !== 'EADDRNOTAVAIL') throw cause
    return oneAnswer(undefined, url, ask)
  }
}

function oneAnswer(
  localAddress: string | undefined,
  url: string,
  { method = 'GET', headers = {}, body, through }: Parameters<typeof askFrom>[2] & object,
): Promise<Answer> {
  const to = new URL(through ?? url)
  return new Promise((done, failed) => {
    const asking = request(
      {
        ...{ host: to.hostname, port: to.port || 80, method, localAddress },
        path: through ? url : `${to.pathname}${to.search}`,
        headers,
        signal: AbortSignal.timeout(PATIENCE),
      },
      (answer) => {
        let text = ''
        answer.setEncoding('utf8')
        answer.on('data', (piece: string) => {
          text += piece
          if (text.length > MOST_BYTES) answer.destroy(new Error('Too long an answer.'))
        })
        answer.on('end', () => done({ status: answer.statusCode ?? 0, text }))
        answer.on('error', failed)
      },
    )
    asking.on('error', failed)
    asking.end(body)
  })
}
