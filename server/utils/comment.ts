export type { Comment } from '~~/database/comments'
