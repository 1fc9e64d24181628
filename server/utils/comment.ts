export type { Comment } from '~~/database/letters'
