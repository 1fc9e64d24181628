import type { Condition } from '../segments'
import { wilson, type Interval } from './wilson'

/** What came of a part of a mailing's people. */
export interface PartResults {
  name: string
  recipients: number
  delivered: number
  opened: number
  clicked: number
  left: number
  bounced: number
  complained: number
  /** By which these people are found; null where no condition says it. */
  rule: Condition | null
}

/** A part of a mailing's people with its rates and their intervals. */
export interface PartRates extends PartResults {
  openRate: Interval
  clickRate: Interval
}

export const partRates = (part: PartResults): PartRates => ({
  ...part,
  openRate: wilson(part.opened, part.delivered),
  clickRate: wilson(part.clicked, part.delivered),
})
