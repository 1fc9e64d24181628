import { randomBytes } from 'node:crypto'
import fc from 'fast-check'
import { simpleParser } from 'mailparser'
import { test, expect } from 'vitest'
import { mouldMessage, pourMessage, withLinksFrom, type MessageParts } from './message'
import { bytesOf, rawMessage, textOf } from './raw-message'
import { readToken } from './token'

const key = randomBytes(32)
const sender = {
  name: 'Galewright Kites, Sandreach',
  address: 'hello@galewright.example',
  url: 'https://mail.galewright.example',
  list: { key: 'wind-notes', name: 'Wind notes' },
  replies: 'sender' as const,
}
const parts: MessageParts = {
  subject: ['Wind for ', { fill: 0 }],
  html: [
    '<p>Dear ',
    { fill: 0 },
    `,</p>\n<p>${'Force 5 — '.repeat(40)}<a href="`,
    { link: 2 },
    '">go</a> <a href="',
    { leave: true },
    '">leave</a><img src="',
    { open: true },
    '"></p>',
  ],
  text: ['Dear ', { fill: 0 }, ',\n\n.hidden dot\nFrom here\n', { link: 2 }],
}
const mould = mouldMessage(12, parts, sender, key)
const fills = [{ html: 'Tove &lt;b&gt;', text: 'Tove <b>\r\nBcc: all@x.example' }]
const recipient = { personId: 99, address: 'tove@inkpost.example', name: 'Tove "Kite" Ø' }
const poured = pourMessage(mould, recipient, fills, 0)

test('the links of a variant have numbers of their own, also in what only some get', async () => {
  const parts = {
    subject: ['Wind'],
    html: [
      '<a href="',
      { link: 0 },
      '">a</a>',
      { when: 0, pieces: ['<a href="', { link: 1 }, '">b</a>'] },
    ],
    text: ['See ', { link: 0 }, ' ', { own: 0 }],
  }
  const fill = { html: '', text: '', link: 10_007 }
  const links = async (first: number) => {
    const { raw } = pourMessage(
      mouldMessage(12, withLinksFrom(parts, first), sender, key),
      { personId: 99, address: 'tove@inkpost.example', name: '' },
      [fill],
      0,
      [true],
    )
    const { html, text } = await simpleParser(textOf(raw))
    return [...`${html as string} ${text}`.matchAll(/\/c\/[^/]+\/(\d+)/g)].map(([, n]) => Number(n))
  }
  expect(await links(0)).toEqual([0, 1, 0, 10_007])
  expect(await links(2_000)).toEqual([2_000, 2_001, 2_000, 10_007])
})

test('an independent reader finds what was poured', async () => {
  const mail = await simpleParser(textOf(poured.raw))
  expect(mail.subject).toBe('Wind for Tove <b> Bcc: all@x.example')
  expect(mail.from?.value).toEqual([{ name: sender.name, address: sender.address }])
  expect((mail.to as { value: unknown }).value).toEqual([
    { name: 'Tove "Kite" Ø', address: 'tove@inkpost.example' },
  ])
  expect(mail.messageId).toBe(poured.messageId)
  expect(mail.html).toContain('<p>Dear Tove &lt;b&gt;,</p>')
  expect(mail.html).toContain(
    `${'Force 5 — '.repeat(40)}<a href="https://mail.galewright.example/c/`,
  )
  expect(mail.text).toContain('.hidden dot\nFrom here\nhttps://mail.galewright.example/c/')
  expect(mail.headers.has('bcc')).toBe(false)
  expect(mail.headerLines.find(({ key: name }) => name === 'list-unsubscribe-post')!.line).toBe(
    'List-Unsubscribe-Post: List-Unsubscribe=One-Click',
  )
  expect(mail.headerLines.find(({ key: name }) => name === 'list-id')!.line).toBe(
    'List-Id: Wind notes <wind-notes.galewright.example>',
  )
})

test('links, return path and id name the recipient, each for its own purpose', () => {
  const recipient = { mailingId: 12, personId: 99, round: 0 }
  const html = textOf(poured.raw).replaceAll('=\r\n', '')
  expect(readToken({ key, shortUpTo: -1 }, 'click', /\/c\/([a-z2-7]+)\/2/.exec(html)![1]!)).toEqual(
    recipient,
  )
  expect(
    readToken({ key, shortUpTo: -1 }, 'open', /\/o\/([a-z2-7]+)\.gif/.exec(html)![1]!),
  ).toEqual(recipient)
  expect(
    readToken({ key, shortUpTo: -1 }, 'leave', /<https:\/\/[^>]+\/u\/([a-z2-7]+)>/.exec(html)![1]!),
  ).toEqual(recipient)
  expect(
    readToken({ key, shortUpTo: -1 }, 'bounce', /^b-([a-z2-7]+)@/.exec(poured.returnPath)![1]!),
  ).toEqual(recipient)
})

test('lines stay within limits and the same recipient gets the same bytes', () => {
  for (const line of textOf(poured.raw).split('\r\n')) expect(line.length).toBeLessThanOrEqual(200)
  const again = pourMessage(
    mould,
    { personId: 99, address: 'tove@inkpost.example', name: 'Tove "Kite" Ø' },
    fills,
    0,
  )
  expect(again.raw).toEqual(poured.raw)
})

test('where replies are kept, each recipient has an address of their own for them', () => {
  const kept = pourMessage(
    mouldMessage(12, parts, { ...sender, replies: 'kept' }, key),
    recipient,
    fills,
    0,
  )
  expect(textOf(kept.raw)).toContain(`\r\nReply-To: r-${kept.returnPath.slice(2)}\r\n`)
  expect(textOf(poured.raw)).not.toContain('Reply-To')
})

test('whatever is filled in: ASCII, CRLF only, no line begins with a dot, none is too long', () => {
  const odd = fc
    .array(
      fc.oneof(
        fc.constantFrom('.', '\r', '\n', '\r\n.', ' ', '=', 'From ', '\0', 'ø', '🪁'),
        fc.string(),
      ),
    )
    .map((pieces) => pieces.join(''))
  fc.assert(
    fc.property(odd, odd, odd, (before, filled, name) => {
      const dotted = mouldMessage(
        1,
        {
          subject: [before, { fill: 0 }],
          html: [before, { fill: 0 }],
          text: [{ fill: 0 }, before],
        },
        { ...sender, name, list: { key: 'wind-notes', name } },
        key,
      )
      const { raw } = pourMessage(
        dotted,
        { personId: 1, address: 'tove@inkpost.example', name },
        [{ html: filled, text: filled }],
        0,
      )
      const text = textOf(raw)
      expect(text.endsWith('\r\n')).toBe(true)
      // Put together, taken apart and as bytes it is the same message.
      expect(textOf(rawMessage(text))).toBe(text)
      const { bytes, bodyStart, bodyEnd } = bytesOf(raw, { end: '.\r\n', room: 7 })
      expect(bytes.toString('latin1', 7)).toBe(`${text}.\r\n`)
      expect(bytes.toString('latin1', bodyStart, bodyEnd)).toBe(raw.body.join(''))
      for (const line of text.split('\r\n')) {
        expect(line.startsWith('.')).toBe(false)
        expect(line).toMatch(/^[\t\x20-\x7e]*$/)
        expect(line.length).toBeLessThanOrEqual(998)
      }
    }),
  )
})
