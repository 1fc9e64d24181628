import { totalOf } from '../counting'
import { wilson, type Interval } from './wilson'

/**
 * The counts of one mailing. The first line has every final and passing state of its recipients:
 * they sum to `recipients`. The second counts people, not acts.
 */
export interface Totals {
  recipients: number
  waiting: number
  accepted: number
  bounced: number
  complained: number
  failed: number
  dropped: number
  uncertain: number

  opened: number
  clicked: number
  left: number
  machineOpened: number
  scannerClicked: number
}

export interface Rate extends Interval {
  hits: number
  of: number
}

/** The rates people steer by, each over what it is a share of. */
export function ratesOf(totals: Totals) {
  const delivered = totalOf(totals, 'delivered')
  const answered = totalOf(totals, 'answered')
  const bounced = totalOf(totals, 'bounced')
  const rate = (hits: number, of: number): Rate => ({ hits, of, ...wilson(hits, of) })
  return {
    delivered: rate(delivered, answered),
    opened: rate(totals.opened, delivered),
    clicked: rate(totals.clicked, delivered),
    clickToOpen: rate(totals.clicked, totals.opened),
    left: rate(totals.left, delivered),
    complained: rate(totals.complained, delivered),
    bounced: rate(bounced, answered),
  }
}
