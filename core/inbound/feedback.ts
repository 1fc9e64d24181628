import type { ReceivedMail } from './mail'
import type { Reading } from './read'

/** What a reader's report has to be of to be a complaint (RFC 5965, 3.1). */
const complaints = new Set(['abuse', 'fraud', 'virus'])

/** A report by somebody who got the letter (RFC 5965, RFC 6591 and whatever else servers send in that form). */
export function readFeedback(mail: ReceivedMail): Reading | null {
  const [fields] = mail.report('feedback-report') ?? []
  if (!fields) return null
  const type = (fields.get('feedback-type') ?? '').toLowerCase().split(/[\s;]/)[0]!
  return { kind: complaints.has(type) ? 'complaint' : 'feedback', type }
}
