/** How a mailing goes out: its plan, the parts it goes out in, and when somebody reads most. */
export { MOST_VARIANTS, noVariant, plainPlan, planProblems, readPlan, variantName } from './plan'
export type { DispatchPlan, Goal, Measure, Pace, ProviderPace, TestPlan, Variant } from './plan'
export { lineBroken, lines, partsOf } from './parts'
export type { PartCounts, PartKind } from './parts'
export { bestHour } from './best-hour'
export { rateOf, timeLeft, withSample } from './rate'
export type { DueLater, Sample } from './rate'
