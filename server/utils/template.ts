export type { OwnTemplate } from '~~/database/own-templates'
