import type { DispatchPlan } from '../dispatch'
import type { Lift } from './lift'

type Test = NonNullable<DispatchPlan['test']>

export interface VariantCounts {
  variant: number
  recipients: number
  delivered: number
  opened: number
  clicked: number
  left: number
  goal: number
  money: number
  /** Sum of the squares of what each person brought. */
  moneySquares: number
}

/** What a test was decided on: each variant as it stood then, in their order. */
export interface DecidedOn {
  measure: Test['measure']
  variants: { variant: number; of: number; value: number; best: number; loss: number }[]
}

/** A test as it stands: each variant with what came of it, and how sure one can be. */
export interface TestResults {
  of: Test['of']
  measure: Test['measure']
  variants: (VariantCounts & {
    name: string
    /** What differs in it. */
    words: string
    value: number
    low: number
    high: number
    best: number
    loss: number
  })[]
  leader: number
  clear: boolean
  /** The leader against the one after it, as shares; null for money. */
  ahead: Lift | null
  curves: { x: number[]; y: number[][] }
  winner: number | null
  decidedAt: number | null
  decidedBy: string | null
  /** As it stood when it was decided; null where nothing is, or that was not kept. */
  decidedOn: DecidedOn | null
  /** Until when the goal may still be reached, where it is what decides and that is to come. */
  goalOpenUntil: number | null
}

/** What a mailing was for and what it brought; `lift` where some were held out. */
export interface WorthResults {
  goal: DispatchPlan['goal']
  /** What the segment is called that the goal is about; null where it is about none, or the segment is gone. */
  segment: string | null
  reached: { hits: number; of: number } | null
  /** Until when more may reach it; null where that is over. All figures of it say *so far* until then. */
  openUntil: number | null
  lift: Lift | null
  heldOut: number
  orders: number
  buyers: number
  money: number
}

/** A mailing beside another; `age`: ms since each began up to which both are counted, null where they are in all. */
export interface Beside {
  age: number | null
  rates: ({ name: string } & Lift)[]
}
