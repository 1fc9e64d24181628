import type { TestResults, WorthResults } from '~~/server/utils/test-results'
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
  earlier: { id: number; name: string; opened: number; clicked: number; left: number }[]
}

/** Where the people are of whom a figure tells: a segment not saved yet, of those who did this with a mailing. */
export function peopleWho(mailing: number, did: MailAct, besides?: Condition, link?: number) {
  const act: Condition = {
    kind: 'mail',
    did,
    of: { which: 'mailing', id: mailing, link: link ?? null },
    times: { is: 'at-least', n: 1 },
    withinDays: null,
  }
  const rule: Rule = { kind: 'all', of: besides ? [act, besides] : [act] }
  return { path: '/people/segments/new', query: { rule: JSON.stringify(rule) } }
}
