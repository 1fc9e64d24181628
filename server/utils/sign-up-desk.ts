import type { H3Event } from 'h3'
import { makeToken, readToken } from '~~/core/delivery'
import { saidHtml, type Drawing } from '~~/core/sign-ups'
import { DAY } from '~~/core/time'

/** A desk's address works for so long: a fair over a weekend. */
export const DESK_FOR = 3 * DAY

/** The address of a form as it stands on a tablet at a desk, and until when it works. */
export function deskAddress(signUp: { id: number; key: string }) {
  const now = satchel().hostClock()
  const token = makeToken(publicKey(), 'desk', signUp.id, now)
  return { address: `${satchel().url}/s/${signUp.key}?desk=${token}`, until: now + DESK_FOR }
}

/** Whether a request comes from a desk of this form that still works. */
export function atDesk(event: H3Event, signUpId: number): boolean {
  const { desk } = getQuery(event)
  const of = typeof desk === 'string' ? readToken(publicTokens(), 'desk', desk) : null
  const age = of?.mailingId === signUpId ? satchel().hostClock() - of.personId : -1
  return age >= 0 && age < DESK_FOR
}

/** What a page at a desk has besides the form: what is said while there is no line, and the script that clears it. */
export function deskParts(drawing: Drawing): string {
  const thanks = saidHtml(drawing.form.thanks, drawing)
  return `<p id="desk-state" role="status" data-kept="${drawing.told.html('formKept', { many: '{many}' })}" data-tick="${drawing.told.html('formTick')}"></p><template id="desk-thanks">${thanks}</template><script src="/s/desk.js" async></script>`
}
