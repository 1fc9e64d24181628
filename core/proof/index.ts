/**
 * The proof: a running check of a letter for its real audience. Each check is a file in `checks/`
 * and looks at the same facts; what it finds are marks.
 */
export { proofOf, blockersOf } from './proof'
export type { Mark, MarkLevel, ProofFacts, LinkCheck } from './mark'
export { repaired } from './repair'
export type { Repair, RepairChange } from './repair'
export type { PeopleFacts } from './mark'
export { textsOf } from './texts'
export { readingOf } from './reading'
export type { Reading } from './reading'
export { markKey, mayOverrule, withOverruled } from './overrule'
export type { Overruling } from './overrule'
export type { Approval } from './approval'
