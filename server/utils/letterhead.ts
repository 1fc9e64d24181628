export type { NamedLetterhead } from '~~/database/letters'
