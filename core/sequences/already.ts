import type { Rule } from '../segments'
import type { Start } from './map'
import type { Starting } from './starts'

/**
 * Who fits a start already: of joining, everybody on the list; who has the tag; who is in the segment. What somebody did once
 * is no state that can hold, so of other starts nobody fits. Null: of none of these starts anybody can.
 */
export function alreadyThere({ by, rule }: Pick<Start, 'by' | 'rule'>): Rule | null {
  const parts = by.flatMap((start) => stateOf(start) ?? [])
  if (parts.length === 0) return null
  const any: Rule = { kind: 'any', of: parts }
  return rule ? { kind: 'all', of: [any, rule] } : any
}

function stateOf(start: Starting): Rule | null {
  switch (start.is) {
    case 'joined':
      return start.signUpId === null ? { kind: 'all', of: [] } : null
    case 'tag':
      return start.gets && start.tagId > 0 ? { kind: 'tagged', tagId: start.tagId } : null
    case 'segment':
      return start.comes && start.segmentId > 0
        ? { kind: 'segment', segmentId: start.segmentId }
        : null
    default:
      return null
  }
}
