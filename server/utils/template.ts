export type { OwnTemplate } from '~~/database/letters'
