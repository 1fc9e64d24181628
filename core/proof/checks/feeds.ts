import { blocksOf, shownEntries } from '../../letters'
import type { Mark, ProofFacts } from '../mark'

/** What a letter shows of a feed is as it was when it was read; the feed may have gone on since. */
export function feeds({ letter, feeds: told }: ProofFacts): Mark[] {
  return blocksOf(letter.document).flatMap((block): Mark[] => {
    if (block.kind !== 'feed') return []
    const base = { check: 'feeds', blockId: block.id }
    if (shownEntries(block).length === 0)
      return [
        {
          ...base,
          level: 'blocker',
          title: 'The feed shows nothing',
          detail: 'Set the address of a feed that has entries, or take the block away.',
        },
      ]
    const shown = new Set(block.entries.map(({ href }) => href))
    const latest = (told.get(block.url) ?? []).slice(0, block.many)
    const newer = latest.filter(({ href }) => !shown.has(href)).length
    if (newer === 0) return []
    return [
      {
        ...base,
        level: 'caution',
        title: newer === 1 ? 'The feed has a newer entry' : `The feed has ${newer} newer entries`,
        detail: 'The letter shows the feed as it was when it was read last.',
      },
    ]
  })
}
