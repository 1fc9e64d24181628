import type { IncomingMessage } from 'node:http'

/**
 * The address that a request comes from. Where Satchel stands behind a proxy (SATCHEL_BEHIND_PROXY=1), it is the last that
 * the proxy wrote down (`X-Forwarded-For`); anything before that anybody could have written.
 */
export function askedFrom(req: IncomingMessage): string {
  const told = req.headers['x-forwarded-for']
  const last =
    process.env.SATCHEL_BEHIND_PROXY === '1' &&
    String(told ?? '')
      .split(',')
      .at(-1)
      ?.trim()
  return last || (req.socket.remoteAddress ?? '')
}
