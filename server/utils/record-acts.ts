import { actRecorder, type NewAct } from '~~/database/sending'

type Waiting = { act: NewAct; done: () => void; failed: (error: unknown) => void }
let waiting: Waiting[] = []
let record: ((acts: readonly NewAct[]) => void) | null = null

/**
 * Stores an open or a click; resolves when it is stored. All that come in the same turn of the
 * event loop share one transaction, which is what lets a single file take thousands a second.
 */
export function recordAct(act: NewAct): Promise<void> {
  return new Promise((done, failed) => {
    if (waiting.length === 0) setImmediate(flush)
    waiting.push({ act, done, failed })
  })
}

function flush() {
  const batch = waiting
  waiting = []
  try {
    record ??= actRecorder(satchel().db)
    record(batch.map(({ act }) => act))
    for (const { done } of batch) done()
  } catch (error) {
    for (const { failed } of batch) failed(error)
  }
}
