import type { H3Event } from 'h3'

/** From where a reader's request comes, for the evidence of what they change by it. */
export const fromWhere = (event: H3Event) => ({
  ip: fromOf(event).address || null,
  agent: getHeader(event, 'user-agent') ?? null,
})
