/** What a reader's mail program finds in a message: headers, pictures and links. */
export interface ReadLetter {
  subject: string
  messageId: string
  unsubscribe: string | null
  /** Where readers change what they get; not one of the letter's links. */
  ownPage: string | null
  /** Where they say that they want what they signed up for; not one of the letter's links either. */
  confirmBy: string | null
  /** Where a mail asks to be unsubscribed, and where an answer goes; null: nowhere of its own. */
  leaveBy: string | null
  replyTo: string | null
  pictures: string[]
  links: string[]
  html: string
}

/** Reads a message as a simple mail program would: the headers and the HTML part. */
export function readLetter(source: string): ReadLetter {
  const end = source.indexOf('\r\n\r\n')
  const head = source.slice(0, end).replace(/\r\n[ \t]+/g, ' ')
  const header = (name: string) => new RegExp(`^${name}: *(.*)$`, 'im').exec(head)?.[1] ?? ''
  const at = source.search(/Content-Type: text\/html/i)
  const html = at < 0 ? '' : partAt(source, at)
  const find = (pattern: RegExp) =>
    [...html.matchAll(pattern)].map((match) => match[1]!.replaceAll('&amp;', '&'))
  const links = find(/<a[^>]*\shref="(https?:[^"]+)"/gi)
  const ownPage = links.find((url) => /\/r\/[a-z2-7]+$/.test(url)) ?? null
  const confirmBy = links.find((url) => /\/s\/confirm\/[\w-]+$/.test(url)) ?? null
  return {
    subject: decodeWords(header('Subject')),
    messageId: header('Message-ID'),
    unsubscribe: /<(https?:[^>]+)>/.exec(header('List-Unsubscribe'))?.[1] ?? null,
    leaveBy: /<mailto:([^>?]+)/.exec(header('List-Unsubscribe'))?.[1] ?? null,
    replyTo: /[^\s<>]+@[^\s<>]+/.exec(header('Reply-To'))?.[0] ?? null,
    pictures: find(/<img[^>]*\ssrc="(https?:[^"]+)"/gi),
    ...{ ownPage, confirmBy },
    links: links.filter((url) => url !== ownPage && url !== confirmBy),
    html,
  }
}

/** What a part says whose headers begin near here: it goes to the next boundary. */
function partAt(source: string, at: number): string {
  const begin = source.lastIndexOf('\r\n--', at)
  const body = source.indexOf('\r\n\r\n', at) + 4
  const end = source.indexOf('\r\n--', body)
  const text = source.slice(body, end < 0 ? undefined : end)
  return /^Content-Transfer-Encoding: *base64/im.test(source.slice(Math.max(0, begin), body))
    ? Buffer.from(text, 'base64').toString('utf8')
    : decode(text)
}

function decode(text: string): string {
  const bytes = text
    .replace(/=\r\n/g, '')
    .replace(/=([0-9A-F]{2})/g, (_, hex: string) => String.fromCharCode(parseInt(hex, 16)))
  return Buffer.from(bytes, 'latin1').toString('utf8')
}

function decodeWords(text: string): string {
  return text
    .replace(/\?=\s+=\?/g, '?==?')
    .replace(/=\?utf-8\?b\?([^?]*)\?=/gi, (_, base64: string) =>
      Buffer.from(base64, 'base64').toString('utf8'),
    )
}
