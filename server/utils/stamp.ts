export type { Stamp } from '~~/database/stamps'
