import { createServer, type Server, type Socket } from 'node:net'
import type { Folder, Mail, Mailboxes } from './mailboxes'
import { mailboxExists, providerOf } from './providers'

/** Every mailbox of the practice world opens with it. */
const PASSWORD = 'practice'
const CAPABILITIES = 'IMAP4rev1 SPECIAL-USE UNSELECT'

/** A line in parts: words, and lists of them. */
type Part = string | Part[]

/**
 * The post office's mailboxes over IMAP (RFC 3501), as far as somebody needs it who looks whether a message came and
 * into which folder: `LOGIN`, `LIST`, `EXAMINE`, `SEARCH` by a header, `FETCH` of headers. Nothing can be changed.
 */
export function openImap(mailboxes: Mailboxes): Server {
  return createServer((socket) => {
    socket.on('error', () => socket.destroy())
    socket.setTimeout(60_000, () => socket.destroy())
    converse(socket, mailboxes)
  })
}

function converse(socket: Socket, mailboxes: Mailboxes) {
  const say = (line: string) => socket.write(`${line}\r\n`, 'latin1')
  let address: string | null = null
  let opened: Mail[] | null = null
  let input = ''
  say(`* OK [CAPABILITY ${CAPABILITIES}] practice post office`)
  socket.on('data', (piece: Buffer) => {
    input += piece.toString('latin1')
    for (let line = takeLine(); line !== null; line = takeLine()) answer(line)
  })

  /** The next whole line with the literals that belong to it; null where more must come first. */
  function takeLine(): string | null {
    let from = 0
    for (;;) {
      const end = input.indexOf('\r\n', from)
      if (end < 0) return null
      const literal = /\{(\d+)(\+?)\}$/.exec(input.slice(from, end))
      if (!literal) {
        const line = input.slice(0, end)
        input = input.slice(end + 2)
        return line
      }
      const rest = end + 2 + Number(literal[1])
      if (input.length < rest) {
        if (!literal[2] && input.length === end + 2) say('+ go on')
        return null
      }
      from = rest
    }
  }

  function answer(line: string) {
    const [tag, ...rest] = partsOf(line)
    let words = rest
    const uid = String(words[0]).toUpperCase() === 'UID'
    if (uid) words = words.slice(1)
    const [verb, ...given] = words
    const done = (text = 'done') => say(`${String(tag)} OK ${text}`)
    const refuse = (text: string) => say(`${String(tag)} NO ${text}`)
    switch (String(verb).toUpperCase()) {
      case 'CAPABILITY':
        say(`* CAPABILITY ${CAPABILITIES}`)
        return done()
      case 'NOOP':
        return done()
      case 'LOGOUT':
        say('* BYE')
        done()
        return socket.end()
      case 'LOGIN': {
        const [user, password] = [String(given[0]).toLowerCase(), given[1]]
        if (password !== PASSWORD || !mailboxExists(user))
          return refuse('[AUTHENTICATIONFAILED] no such mailbox, or the wrong password')
        address = user
        return done()
      }
    }
    if (address === null) return refuse('log in first')
    const { junk } = providerOf(address)
    switch (String(verb).toUpperCase()) {
      case 'LIST':
        if (given[1] === '') say('* LIST (\\Noselect) "/" ""')
        else {
          say('* LIST (\\HasNoChildren) "/" INBOX')
          say(`* LIST (\\HasNoChildren \\Junk) "/" "${junk}"`)
        }
        return done()
      case 'SELECT':
      case 'EXAMINE': {
        const folder: Folder | null =
          String(given[0]).toUpperCase() === 'INBOX' ? 'inbox' : given[0] === junk ? 'junk' : null
        if (!folder) return refuse('there is no such folder')
        opened = mailboxes.within(address, folder)
        say('* FLAGS (\\Seen)')
        say(`* ${opened.length} EXISTS`)
        say('* OK [UIDVALIDITY 1]')
        say(`* OK [UIDNEXT ${mailboxes.count + 1}]`)
        return done('[READ-ONLY]')
      }
      case 'UNSELECT':
      case 'CLOSE':
        opened = null
        return done()
    }
    if (!opened) return refuse('open a folder first')
    const mails = opened
    const nameOf = (mail: Mail, at: number) => (uid ? mail.no + 1 : at + 1)
    switch (String(verb).toUpperCase()) {
      case 'SEARCH': {
        const fits = searchFor(given)
        if (!fits) return refuse('only HEADER is looked for')
        const found = mails.flatMap((mail, at) => (fits(mail) ? [nameOf(mail, at)] : []))
        say(`* SEARCH ${found.join(' ')}`.trimEnd())
        return done()
      }
      case 'FETCH': {
        const wanted = numbersOf(String(given[0]))
        for (const [at, mail] of mails.entries())
          if (wanted(nameOf(mail, at))) {
            const headers = `${(mail.source ?? '').split('\r\n\r\n', 1)[0]!}\r\n\r\n`
            say(`* ${at + 1} FETCH (UID ${mail.no + 1} BODY[HEADER] {${headers.length}}`)
            socket.write(`${headers})\r\n`, 'latin1')
          }
        return done()
      }
    }
    say(`${String(tag)} BAD that is not known here`)
  }
}

/** What `SEARCH HEADER name text` asks; null for any other search. */
function searchFor(given: Part[]): ((mail: Mail) => boolean) | null {
  const [what, name, text] = given.map(String)
  if (what?.toUpperCase() !== 'HEADER' || !name || text === undefined) return null
  if (name.toLowerCase() === 'message-id') return ({ messageId }) => messageId.includes(text)
  const line = new RegExp(`^${name.replace(/[^\w-]/g, '')}:(.*(?:\r\n[ \t].*)*)`, 'im')
  return ({ source }) => (line.exec(source ?? '')?.[1] ?? '').includes(text)
}

/** Whether a number is in a set like `2,4:7,9:*`. */
function numbersOf(set: string): (n: number) => boolean {
  const ranges = set.split(',').map((range) => {
    const [from, to = from] = range.split(':').map((end) => (end === '*' ? Infinity : Number(end)))
    return [from!, to!] as const
  })
  return (n) => ranges.some(([from, to]) => n >= Math.min(from, to) && n <= Math.max(from, to))
}

/** A line in its parts: atoms, quoted texts, literals and lists (RFC 3501, 4). */
function partsOf(line: string): Part[] {
  let at = 0
  return list()

  function list(): Part[] {
    const parts: Part[] = []
    while (at < line.length && line[at] !== ')') {
      if (line[at] === ' ') at++
      else if (line[at] === '(') {
        at++
        parts.push(list())
        at++
      } else parts.push(word())
    }
    return parts
  }
  function word(): string {
    const rest = line.slice(at)
    const quoted = /^"((?:[^"\\]|\\.)*)"/.exec(rest)
    if (quoted) {
      at += quoted[0].length
      return quoted[1]!.replace(/\\(.)/g, '$1')
    }
    const literal = /^\{(\d+)\+?\}\r\n/.exec(rest)
    if (literal) {
      const from = at + literal[0].length
      at = from + Number(literal[1])
      return line.slice(from, at)
    }
    const atom = /^[^ ()]+(?:\[[^\]]*\])?/.exec(rest)?.[0] ?? rest[0]!
    at += atom.length
    return atom
  }
}
