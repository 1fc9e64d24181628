import { isIn } from './counts'

/** What a mailing was to one person: a bar of their pulse. */
export type PulseBar = 'clicked' | 'opened' | 'delivered' | 'not-sent' | 'bounced'

export function pulseBar(row: {
  state: string
  opened_at: number | null
  clicked_at: number | null
}): PulseBar {
  if (row.clicked_at !== null) return 'clicked'
  if (row.opened_at !== null) return 'opened'
  if (isIn(row.state, 'delivered')) return 'delivered'
  return isIn(row.state, 'bounced') ? 'bounced' : 'not-sent'
}
