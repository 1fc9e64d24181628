import type { ShownReply } from '~/components/common/ReplyList.vue'
import { firstLinkOf, FIRST_PRODUCT_LINK } from '~~/core/letters'
import type { TestResults, WorthResults } from '~~/core/experiments'
import type { HourCount, Rate, Totals } from '~~/core/results'
import type { Condition, MailAct, Rule } from '~~/core/segments'

/** What the results page of a mailing gets. */
export interface Results {
  totals: Totals
  rates: Record<
    'delivered' | 'opened' | 'clicked' | 'clickToOpen' | 'left' | 'complained' | 'bounced',
    Rate
  >
  hours: HourCount[]
  later: number
  halfTime: number | null
  links: {
    no: number
    url: string
    words: string
    block_id: string
    people: number
    clicks: number
  }[]
  test: TestResults | null
  worth: WorthResults
  reasons: { state: string; answer: string | null; n: number }[]
  /** Why people said they left; `silent`: how many left without a word. */
  leaving: { reasons: { name: string; n: number }[]; silent: number }
  /** Who wrote back, and the newest of what they wrote. */
  replied: { measured: boolean; people: number; newest: (ShownReply & { person_id: number })[] }
  /** What stands beside it was counted up to this age, ms since it began; null of sequences' mail. */
  age: number | null
  earlier: { id: number; name: string; opened: number; clicked: number; left: number }[]
}

/** A link of a letter, with the same link in other variants. */
export interface ClickedLink {
  numbers: number[]
  url: string
  words: string
  people: number
}

/** What was clicked, over all variants: a reader gets one of them, so that people may be added up. */
export function clickedLinks(links: Results['links']): ClickedLink[] {
  const found = new Map<string, ClickedLink>()
  for (const { no, url, words, people } of links) {
    const key = JSON.stringify([no < FIRST_PRODUCT_LINK ? no % firstLinkOf(1) : no, url, words])
    const one = found.get(key) ?? { numbers: [], url, words, people: 0 }
    found.set(key, { ...one, numbers: [...one.numbers, no], people: one.people + people })
  }
  return [...found.values()]
}

/** Where the people are of whom a figure tells: a segment not saved yet, of those who did this with a mailing. */
export function peopleWho(
  mailing: number,
  did: MailAct,
  besides?: Condition,
  links: readonly number[] = [],
) {
  const act = (link: number | null): Condition => ({
    kind: 'mail',
    did,
    of: { which: 'mailing', id: mailing, link },
    times: { is: 'at-least', n: 1 },
    withinDays: null,
  })
  const rule: Rule =
    links.length > 1
      ? { kind: 'any', of: links.map(act) }
      : { kind: 'all', of: [act(links[0] ?? null), ...(besides ? [besides] : [])] }
  return { path: '/people/segments/new', query: { rule: JSON.stringify(rule) } }
}
