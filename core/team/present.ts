/** Somebody who has a letter open, in one tab of their browser, and the block they are in. */
export interface Present {
  tab: string
  userId: number
  name: string
  blockId: string | null
}
