import type { H3Event } from 'h3'

/** Refuses, and says for how long, where somebody has to wait so many ms. */
export function refuseTooMany(event: H3Event, wait: number) {
  if (wait <= 0) return
  const seconds = Math.ceil(wait / 1_000)
  setResponseHeader(event, 'Retry-After', seconds)
  throw createError({
    statusCode: 429,
    message: `Too many attempts from here. Try again in ${seconds < 90 ? `${seconds} seconds` : `${Math.ceil(seconds / 60)} minutes`}.`,
  })
}
