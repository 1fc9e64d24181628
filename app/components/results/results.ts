import type { TestResults, WorthResults } from '~~/server/utils/test-results'
import type { HourCount, Rate, Totals } from '~~/core/results'

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
  providers: {
    domain: string
    recipients: number
    delivered: number
    bounced: number
    complained: number
    opened: number
    clicked: number
  }[]
  earlier: { id: number; name: string; opened: number; clicked: number; left: number }[]
}
