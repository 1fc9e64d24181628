/** What everybody on the list is asked, in this order; who fails one is not asked the next. */
export const waterfallTests = [
  'on-list',
  'set-aside',
  'segment',
  'left-out',
  'paused',
  'own-limit',
  'cap',
] as const
export type WaterfallTest = (typeof waterfallTests)[number]

export interface WaterfallStep {
  step: WaterfallTest
  /** People who drop out here. */
  out: number
  /** People who are left after it. */
  left: number
}

/**
 * The steps from everybody on the list down to the eligible, of the tests that are asked.
 * `failed`: how many fail each of them after having passed those before it.
 * The last step's `left` are the recipients; all `out` and that `left` sum to `onList`.
 */
export function waterfall(
  onList: number,
  failed: readonly (readonly [WaterfallTest, number])[],
): WaterfallStep[] {
  let left = onList
  return [
    { step: 'on-list', out: 0, left },
    ...failed.map(([step, out]) => ({ step, out, left: (left -= out) })),
  ]
}
