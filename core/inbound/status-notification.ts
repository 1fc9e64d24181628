import { failureOf, statusIn } from '../delivery'
import type { Fields, ReceivedMail } from './mail'
import type { Reading } from './read'

/**
 * A delivery status notification (RFC 3464). What was done (`Action`) is asked before the status: *failed* with 4.x.x has
 * been given up; *delayed* has not, whatever its status. Null where it has no such part.
 */
export function readStatusNotification(mail: ReceivedMail): Reading | null {
  const blocks = mail.report('delivery-status')?.filter((fields) => fields.size > 0)
  if (!blocks?.length) return null
  const told = blocks.filter((fields) => actionOf(fields) !== null)
  if (told.length === 0) return null
  const of = blockOf(told, mail)
  const action = actionOf(of)!
  // A letter that was passed on to several has arrived where one of them took it.
  if (of === told[0] && told.some((fields) => actionOf(fields) === 'arrived'))
    return { kind: 'noted' }
  if (action === 'arrived') return { kind: 'noted' }
  const status = statusOf(of)
  const diagnosis = (of.get('diagnostic-code') ?? '').replace(/^[\w-]+;\s*/, '')
  const answer = status && !diagnosis.includes(status) ? `${status} ${diagnosis}`.trim() : diagnosis
  const failure = failureOf(status, diagnosis || mail.text)
  return { kind: action === 'failed' ? 'bounced' : 'delayed', failure, answer }
}

/** The block about our reader: the one that names whom the letter was to; else the first. */
function blockOf(blocks: readonly Fields[], mail: ReceivedMail): Fields {
  const to = /[^\s<>"]+@[^\s<>"]+/.exec(mail.returned?.get('to') ?? '')?.[0]?.toLowerCase()
  const names = (fields: Fields, field: string) =>
    to !== undefined && (fields.get(field) ?? '').toLowerCase().endsWith(to)
  return (
    blocks.find((fields) => names(fields, 'original-recipient')) ??
    blocks.find((fields) => names(fields, 'final-recipient')) ??
    blocks[0]!
  )
}

/** What was done, also in the words that servers use for it; by the status where it is not said; null where neither is. */
function actionOf(fields: Fields): 'failed' | 'delayed' | 'arrived' | null {
  const action = /^[a-z]+/i.exec(fields.get('action') ?? '')?.[0]?.toLowerCase()
  if (action && /^(?:fail|error|bounce|reject|expired)/.test(action)) return 'failed'
  if (action && /^(?:delay|defer)/.test(action)) return 'delayed'
  if (action && /^(?:deliver|relay|expand)/.test(action)) return 'arrived'
  const first = statusOf(fields)?.[0]
  return first === '5' ? 'failed' : first === '4' ? 'delayed' : first === '2' ? 'arrived' : null
}

function statusOf(fields: Fields): string | null {
  return statusIn(fields.get('status') ?? '') ?? statusIn(fields.get('diagnostic-code') ?? '')
}
