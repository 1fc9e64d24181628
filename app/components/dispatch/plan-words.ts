import type { DispatchPlan } from '~~/core/dispatch'

const paces: Record<DispatchPlan['pace'], string> = {
  'at-once': 'Everybody at once',
  'best-hour': 'Each at their best hour',
  'local-time': 'The same time on each reader’s clock',
  widening: 'The keenest first',
}

/** A field of a plan in words, where two people's stand side by side. */
export function planFieldWords(field: string, value: unknown): string {
  if (value === null || value === undefined) return 'none'
  switch (field) {
    case 'pace':
      return paces[value as DispatchPlan['pace']]
    case 'holdout':
      return value === 0 ? 'nobody' : `${Math.round(Number(value) * 100)}%`
    case 'watchMinutes':
      return `${String(value)} minutes`
    case 'test': {
      const { of, variants, share } = value as NonNullable<DispatchPlan['test']>
      return `of the ${of}, ${variants.length} variants on ${Math.round(share * 100)}%`
    }
    case 'goal': {
      const { is, what, days } = value as NonNullable<DispatchPlan['goal']>
      return `${is} ${what} within ${days} days`
    }
    case 'providers': {
      const paces = value as DispatchPlan['providers']
      return (
        paces.map(({ domain, perMinute }) => `${domain} ${perMinute} a minute`).join(', ') || 'none'
      )
    }
    case 'sender': {
      const { name, local, replies } = value as DispatchPlan['sender']
      return [name, local, replies].filter(Boolean).join(', ') || 'as in Settings'
    }
    case 'limits':
      return Object.values(value as object)
        .map((share) => `${Number(share) * 100}%`)
        .join(', ')
    default:
      return String(value)
  }
}
