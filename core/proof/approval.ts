/** Whether somebody finds a letter good: who was asked, and what they said of which version. */
export interface Approval {
  id: number
  askedAt: number
  askedBy: string
  ofId: number
  ofName: string
  note: string
  answeredAt: number | null
  verdict: 'approved' | 'not yet' | null
  words: string | null
  /** What was approved is not what would go out now, so the approval holds no more. */
  lapsed: boolean
  /** What of it has changed, in words. */
  lapsedBy: string[]
}
