import { randomUUID } from 'node:crypto'
import type { ShopAct } from './visit'

type Told = { kind: ShopAct['kind']; entry: Record<string, unknown> }

/** So many entries go in one request at most. */
const BATCH = 500
/** How often the shop tells what happened, and how long it waits where nobody answers, ms. */
const EVERY = 400
const LATER = 3_000

/**
 * Tells a mailing program what happens in the shop, over its inbound API: in batches, in order, each with a
 * key of its own, so that one which is sent twice counts once. What nobody takes is sent again.
 */
export function tellOver(api: string, token: string) {
  let waiting: Told[] = []
  let stopped = false
  let underway = 0

  async function go() {
    while (!stopped) {
      const kind = waiting[0]?.kind
      const batch = waiting.filter((one) => one.kind === kind).slice(0, BATCH)
      if (kind) {
        const sent = new Set(batch)
        waiting = waiting.filter((one) => !sent.has(one))
        underway = batch.length
        await send(kind, batch)
        underway = 0
      }
      await rest(EVERY)
    }
  }

  async function send(kind: ShopAct['kind'], batch: Told[]) {
    const key = randomUUID()
    const body = JSON.stringify({ entries: batch.map(({ entry }) => entry) })
    while (!stopped) {
      const status = await fetch(`${api}/${kind}`, {
        method: 'POST',
        headers: {
          'Content-Type': 'application/json',
          Authorization: `Bearer ${token}`,
          'Idempotency-Key': key,
        },
        body,
        signal: AbortSignal.timeout(10_000),
      }).then(
        (answer) => answer.status,
        () => 503,
      )
      // What was refused entry by entry stays refused; only where nobody answered is it worth another try.
      if (status < 500) return
      await rest(LATER)
    }
  }

  void go()
  return {
    tell: (told: Told) => void waiting.push(told),
    waiting: () => waiting.length + underway,
    stop: () => void (stopped = true),
  }
}

function rest(ms: number) {
  return new Promise((done) => setTimeout(done, ms))
}
