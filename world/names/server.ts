import { createSocket, type Socket } from 'node:dgram'
import { readFileSync } from 'node:fs'
import { decode, encode, RECURSION_DESIRED, type Answer, type Packet } from 'dns-packet'

/** Records by name: texts, mail servers and addresses. */
export type Zone = Record<string, { TXT?: string[]; MX?: string[]; A?: string[] }>

const NAME_ERROR = 3

/**
 * The practice world's name server (RFC 1035, over UDP): answers from the zone the account's owner has published, read
 * anew for each question, and from the providers' own.
 */
export function openNames(zoneFile: string | null): Socket {
  const socket = createSocket('udp4')
  socket.on('message', (message, from) => {
    try {
      const question = decode(message)
      socket.send(
        encode(answer(question, { ...providers, ...published(zoneFile) })),
        from.port,
        from.address,
      )
    } catch {
      // What is no question gets no answer.
    }
  })
  return socket
}

/** Asks the zone itself, as `dns.promises.resolve` would be answered. */
export function resolverOf(zoneFile: string | null) {
  return (name: string, type: string): Promise<unknown> => {
    const records = { ...providers, ...published(zoneFile) }[name.toLowerCase()]
    const found =
      type === 'TXT' ? records?.TXT?.map((text) => [text]) : type === 'A' ? records?.A : []
    return found?.length
      ? Promise.resolve(found)
      : Promise.reject(Object.assign(new Error('not found'), { code: 'ENOTFOUND' }))
  }
}

function answer({ id, questions = [], flags = 0 }: Packet, zone: Zone): Packet {
  const [asked] = questions
  const records = asked && zone[asked.name.toLowerCase()]
  return {
    type: 'response',
    id,
    // The low four bits are the answer's code.
    flags: (flags & RECURSION_DESIRED) | (records ? 0 : NAME_ERROR),
    questions,
    answers: records ? answersOf(asked.name, asked.type, records) : [],
  }
}

function answersOf(name: string, type: string, { TXT, MX, A }: Zone[string]): Answer[] {
  const base = { name, ttl: 60, class: 'IN' as const }
  // A text of more than 255 bytes goes over in parts (RFC 1035, 3.3.14).
  if (type === 'TXT')
    return (TXT ?? []).map((text) => ({ ...base, type, data: text.match(/.{1,255}/gs) ?? [''] }))
  if (type === 'MX')
    return (MX ?? []).map((exchange) => ({ ...base, type, data: { preference: 10, exchange } }))
  return type === 'A' ? (A ?? []).map((data) => ({ ...base, type, data })) : []
}

function published(file: string | null): Zone {
  if (file === null) return {}
  try {
    return JSON.parse(readFileSync(file, 'utf8')) as Zone
  } catch {
    return {}
  }
}

const providers: Zone = Object.fromEntries(
  ['harbourmail', 'inkpost', 'oldmill', 'workdesk', 'veilpost'].map((name) => [
    `${name}.example`,
    { MX: [`mx.${name}.example`], TXT: ['v=spf1 mx -all'] },
  ]),
)
