export type { Approval } from '~~/database/approvals'
