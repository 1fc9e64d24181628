import { MACHINE_OPENS_WITHIN, SCANNER_CLICKS_WITHIN } from '../counting'

/** Whether an open or a click was somebody's act or a machine's. */
export type Verdict = 'human' | 'machine'

/** Fetches every picture on arrival, whoever reads: says nothing about the reader. */
const prefetchingProxy = /^mozilla\/5\.0$|prefetch|picture-?(proxy|fetch)/i
/** Programs that run in data centres rather than in front of people. */
const dataCentre =
  /bot\b|crawler|spider|scanner|headless|curl\/|wget\/|python|java\/|go-http|node-fetch|okhttp/i

/**
 * An open is a machine's when it comes from a known prefetching proxy, or within 2 s of acceptance
 * from a data centre's user agent. `acceptedAt` is null where acceptance is not on record yet.
 */
export function judgeOpen(open: { at: number; acceptedAt: number | null; agent: string }): Verdict {
  if (prefetchingProxy.test(open.agent.trim())) return 'machine'
  const hasty = open.acceptedAt === null || open.at - open.acceptedAt <= MACHINE_OPENS_WITHIN
  return hasty && (open.agent === '' || dataCentre.test(open.agent)) ? 'machine' : 'human'
}

/** What is known of one recipient when a click of theirs is judged. */
export interface ClickContext {
  method: string
  at: number
  /** When each link of the letter was followed by this recipient: (link, time) of every click. */
  clicks: readonly { link: number; at: number }[]
  linksInLetter: number
  /** Whether a human open came before this click. */
  openedBefore: boolean
}

/**
 * A click is a scanner's when it is a HEAD request, or when every link of a letter with several
 * was followed within 5 s of it by a recipient who had not opened the letter.
 * A later visit is judged for itself, so a person behind a scanner still counts.
 */
export function judgeClick(click: ClickContext): Verdict {
  if (click.method === 'HEAD') return 'machine'
  if (click.openedBefore || click.linksInLetter < 2) return 'human'
  const followed = new Set(
    click.clicks
      .filter(({ at }) => Math.abs(at - click.at) <= SCANNER_CLICKS_WITHIN)
      .map(({ link }) => link),
  )
  return followed.size >= click.linksInLetter ? 'machine' : 'human'
}
