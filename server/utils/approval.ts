export type { Approval } from '~~/database/mailings'
