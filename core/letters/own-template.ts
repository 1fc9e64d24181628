/** A template of the account's own. */
export interface OwnTemplate {
  id: number
  name: string
  about: string
  byName: string
  at: number
}
