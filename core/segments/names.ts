import type { Field, FieldKind } from '../people/fields'
import type { Ranking } from './values/ranking'

/** What there is on file that a condition may refer to, and what it is called. */
export interface Names {
  fields: ReadonlyMap<string, { name: string; kind: FieldKind }>
  lists: ReadonlyMap<number, string>
  tags: ReadonlyMap<number, string>
  /** Tags that are deleted. */
  goneTags: ReadonlyMap<number, string>
  mailings: ReadonlyMap<number, string>
  segments: ReadonlyMap<number, { name: string }>
  sequences: ReadonlyMap<number, string>
  imports: ReadonlyMap<number, string>
  signUps: ReadonlyMap<number, string>
  /** Digits after the point of the account's currency. */
  moneyDigits: number
  /** The value of the last person whom a ranking keeps; null where nobody has any. */
  cutOf: (ranking: Ranking) => number | null
}

/** Everything on file one can be offered to ask about. */
export interface Vocabulary {
  fields: Field[]
  lists: { id: number; name: string }[]
  tags: { id: number; name: string }[]
  mailings: { id: number; name: string }[]
  segments: { id: number; name: string }[]
  sequences: { id: number; name: string }[]
  imports: { id: number; name: string }[]
  signUps: { id: number; name: string }[]
  products: string[]
  categories: string[]
  events: string[]
  domains: { domain: string; n: number }[]
}
