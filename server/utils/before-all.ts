import type { App, H3Event } from 'h3'

type Answer = (event: H3Event, rest: string) => void | Promise<unknown>
const ways = new Map<string, Answer>()

/**
 * Answers paths that begin so (`/o/`) before anything else looks at the request: what readers fetch by the thousand in
 * the minutes after a mailing. `rest` is what follows in the path, without the query. What it gives back is sent as a page.
 */
export function beforeAll(app: App, prefix: string, answer: Answer) {
  if (ways.size === 0) {
    const usual = app.handler
    // The framework looks this up for each request.
    app.handler = (event) => {
      const url = event.node.req.url ?? ''
      const end = url.indexOf('/', 1)
      const way = end > 0 ? ways.get(url.slice(0, end + 1)) : undefined
      if (!way) return usual(event)
      const query = url.indexOf('?')
      const rest = url.slice(end + 1, query < 0 ? undefined : query)
      const answered = way(event, rest)
      return answered instanceof Promise
        ? answered.then((page) => sendPage(event, page))
        : sendPage(event, answered)
    }
  }
  ways.set(prefix, answer)
}

function sendPage(event: H3Event, page: unknown) {
  if (typeof page === 'string') event.node.res.end(page)
}
