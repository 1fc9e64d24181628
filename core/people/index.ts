/**
 * People and what is known of them: addresses and their normal form, typed fields, the states of
 * a subscription, and how a file of people is understood row by row.
 */
export { checkAddress, addressProblems } from './address'
export type { AddressProblem, CheckedAddress } from './address'
export { addressCautions, nearestDomain } from './doubtful'
export { readFieldValue, fieldKinds, fieldKeyFor, showFieldValue } from './fields'
export type { FieldKind, FieldValue, Field } from './fields'
export { readDate, dateOrderOf, readNumber, readYesNo } from './values'
export type { DateOrder } from './values'
export { splitName } from './names'
export { decodeFile, encodingOf } from './encoding'
export type { Encoding } from './encoding'
export { understandFile, previewBytes, maxColumns } from './file'
export type { FileUnderstanding, FileProblem } from './file'
export { understandColumns } from './columns'
export type { ColumnPlan, ColumnTarget, KnownPeople } from './columns'
export { interpretRow } from './rows'
export type { ImportEntry, RowOutcome } from './rows'
export { nextSubscription } from './subscription'
export type { SubscriptionState, SubscriptionAct } from './subscription'
export { exportWriter, exportFormats, csvRow } from './export'
export type { ExportedPerson, ExportFormat, ExportWriter } from './export'
