import type { Mark, ProofFacts } from '../mark'

const names = { spf: 'SPF', dkim: 'DKIM', dmarc: 'DMARC' } as const

/** Whether providers can know the sender's mail by the records of its domain. Nothing is said where nobody could be asked. */
export function authentication({ domain }: ProofFacts): Mark[] {
  if (!domain) return []
  return (['spf', 'dkim', 'dmarc'] as const).flatMap((which): Mark[] => {
    const { verdict, words, publish } = domain[which]
    if (verdict !== 'missing' && verdict !== 'bad') return []
    return [
      {
        check: 'authentication',
        level: 'caution',
        blockId: null,
        title: `${names[which]} of ${domain.domain} ${verdict === 'missing' ? 'is missing' : 'fails'}`,
        detail: `${words} Publish at ${publish.name}: ${short(publish.value)}. Standing has it whole.`,
      },
    ]
  })
}

function short(value: string): string {
  return value.length > 90 ? `${value.slice(0, 88)}…` : value
}
