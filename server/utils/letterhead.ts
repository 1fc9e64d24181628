export type { NamedLetterhead } from '~~/database/letterheads'
