import type { ReceivedMail } from './mail'

/** What became of a letter in its reader's hands (RFC 8098), or the same in free form. */
export function isReceipt(mail: ReceivedMail): boolean {
  return mail.report('disposition-notification') !== null || isFreeForm(mail)
}

/** Programs' own words at a subject's beginning, and that it was read, in the text. */
function isFreeForm({ subject, text }: ReceivedMail): boolean {
  return (
    /^(?:not )?read: |^(?:un)?gelesen: |^lu ?: |^le[ií]do: |^開封済み: /i.test(subject) &&
    /was (?:read|deleted)|wurde (?:gelesen|gel[öo]scht)|a [ée]t[ée] lu|fue le[ií]do|開封/i.test(
      text,
    )
  )
}
