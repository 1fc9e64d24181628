import type { H3Event } from 'h3'

/** Which rows of an import are asked for: those that are refused, or those that are doubtful. */
export function verdictAsked(event: H3Event): 'refused' | 'doubtful' {
  return getQuery(event).verdict === 'doubtful' ? 'doubtful' : 'refused'
}
