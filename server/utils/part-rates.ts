import { wilson, type Interval } from '~~/core/results'
import type { PartResults } from '~~/database/results'

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
