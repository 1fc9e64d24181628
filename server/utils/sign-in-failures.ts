import { networkOf } from '../../core/network'
import { countedFor, failedAgain, waitAfter, type Failures } from '../../core/sign-in'

/** More than these are never kept; then those of long ago go first. */
const MOST = 20_000

/** Failures to sign in, in this process: for whom they count is said in `core/team/slowing.ts`. */
const failures = new Map<string, Failures>()

interface Who {
  address: string
  from: string
  device: string | null
}

const counted = ({ address, from, device }: Who) =>
  countedFor({ address, network: networkOf(from), device })

/** How long somebody has to wait before they may try again, ms. */
export function waitToSignIn(who: Who, now: number): number {
  return Math.max(...counted(who).map(({ key, free }) => waitAfter(failures.get(key), free, now)))
}

/** Counts a try as failed, before it is known, so that many at once count as many. */
export function countTry(who: Who, now: number) {
  for (const { key } of counted(who)) {
    const after = failedAgain(failures.get(key), now)
    failures.delete(key)
    failures.set(key, after)
  }
  for (const key of failures.keys()) {
    if (failures.size <= MOST) break
    failures.delete(key)
  }
}

/** It was the right one after all: it does not count, nor do this one's own mistakes before it. */
export function tryWasRight(who: Who) {
  for (const { key } of counted(who)) {
    const known = failures.get(key)
    if (!known || !key.startsWith('network ')) failures.delete(key)
    else failures.set(key, { ...known, count: known.count - 1 })
  }
}
