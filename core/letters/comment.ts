/** What the team says on a block of a letter, with what was answered. */
export interface Comment {
  id: number
  blockId: string
  at: number
  byName: string
  text: string
  resolved: { at: number; by: string } | null
  answers: { id: number; at: number; byName: string; text: string }[]
}
