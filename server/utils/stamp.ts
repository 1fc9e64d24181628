export type { Stamp } from '~~/database/letters'
