/** How many people pass each test, in the order of the tests: each counts those who passed all before. */
export interface WaterfallCounts {
  onList: number
  notSetAside: number
  inSegment: number
}

export interface WaterfallStep {
  step: 'on-list' | 'set-aside' | 'segment'
  /** People who drop out here. */
  out: number
  /** People who are left after it. */
  left: number
}

/**
 * The steps from everybody on the list down to the eligible.
 * The last step's `left` are the recipients; all `out` and that `left` sum to the first `left`.
 */
export function waterfall(counts: WaterfallCounts): WaterfallStep[] {
  return [
    { step: 'on-list', out: 0, left: counts.onList },
    { step: 'set-aside', out: counts.onList - counts.notSetAside, left: counts.notSetAside },
    { step: 'segment', out: counts.notSetAside - counts.inSegment, left: counts.inSegment },
  ]
}
