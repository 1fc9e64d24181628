import { simpleParser, type AddressObject, type ParsedMail } from 'mailparser'

/** A message that came in, as far as it is looked at. */
export interface ReceivedMail {
  /** All fields of one name, in order, unfolded; names in small letters. */
  fields(name: string): string[]
  /** The first of them; '' where there is none. */
  field(name: string): string
  subject: string
  from: { name: string; address: string }
  /** What is written in it, without what it carries along. */
  text: string
  /** The machine-readable part of a report, by its type behind `message/`: blocks of fields, as they stand. */
  report(type: string): Fields[] | null
  /** The head of the message that is told about, where it came back. */
  returned: Fields | null
}

/** Fields by their names in small letters, unfolded. */
export type Fields = ReadonlyMap<string, string>

/** More of a message's text is not looked at; nobody writes as much, and no server does. */
const MOST_TEXT = 100_000

/** Reads a message; `raw` is all of it, one character for each byte. */
export async function readMail(raw: string): Promise<ReceivedMail> {
  const mail = await simpleParser(Buffer.from(raw, 'latin1'), {
    skipTextToHtml: true,
    skipImageLinks: true,
    keepDeliveryStatus: true,
  })
  const heads = mail.headerLines.map(({ key, line }) => ({
    key: key.trim(),
    value: unfolded(line.slice(line.indexOf(':') + 1)),
  }))
  const fields = (name: string) => heads.filter(({ key }) => key === name).map(({ value }) => value)
  const returned = partOf(mail, /^(?:message\/rfc822|text\/rfc822-headers)$/)
  return {
    fields,
    field: (name) => fields(name)[0] ?? '',
    subject: mail.subject ?? '',
    from: senderOf(mail.from),
    text: (mail.text ?? '').slice(0, MOST_TEXT),
    report(type) {
      const text = partOf(mail, new RegExp(`^message/(?:global-)?${type}$`))
      return text === null ? null : blocksOf(text)
    },
    returned: returned === null ? null : (blocksOf(returned)[0] ?? null),
  }
}

function senderOf(from: AddressObject | undefined) {
  const first = from?.value[0]
  return { name: first?.name ?? '', address: (first?.address ?? '').toLowerCase() }
}

function partOf(mail: ParsedMail, type: RegExp): string | null {
  const part = mail.attachments.find(({ contentType }) => type.test(contentType.toLowerCase()))
  return part ? part.content.toString('utf8') : null
}

/** Blocks of fields with empty lines between, as reports have them (RFC 3464, 2.1). The first value of a name counts. */
function blocksOf(text: string): Fields[] {
  return text
    .replace(/\r\n?/g, '\n')
    .trim()
    .split(/\n[ \t]*\n/)
    .map((block) => {
      const fields = new Map<string, string>()
      for (const line of unfoldedLines(block)) {
        const colon = line.indexOf(':')
        const name = line.slice(0, colon).trim().toLowerCase()
        if (colon > 0 && !fields.has(name)) fields.set(name, line.slice(colon + 1).trim())
      }
      return fields
    })
}

const unfoldedLines = (block: string) => block.replace(/\n[ \t]+/g, ' ').split('\n')
const unfolded = (value: string) => value.replace(/\r?\n[ \t]+/g, ' ').trim()
