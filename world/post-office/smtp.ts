import { SMTPServer } from 'smtp-server'
import { chanceOf } from '../chance'
import { mailboxExists, mailboxIsFull, providerOf } from './providers'

/** A message that the post office took. */
export interface Arrived {
  returnPath: string
  address: string
  source: string
}

/** What servers say where there is no such mailbox. */
const refusals = [
  '5.1.1 no such mailbox',
  '5.1.1 recipient address rejected: user unknown',
  'sorry, no mailbox here by that name (#5.1.1)',
  '5.1.10 the recipient was not found',
] as const

/** The post office's door: takes, defers and refuses by each provider's habits. */
export function openPostOffice(options: {
  now: () => number
  arrived: (mail: Arrived & { ip: string }) => Promise<void> | void
}): SMTPServer {
  const seen = new Set<string>()
  const minute = new Map<string, { minute: number; count: number }>()
  const refuse = (code: number, text: string) =>
    Object.assign(new Error(text), { responseCode: code })

  function objection(address: string, from: string): Error | null {
    const provider = providerOf(address)
    if (!mailboxExists(address) && !provider.bouncesLater)
      return refuse(550, refusals[Math.floor(chanceOf('refusal', address) * refusals.length)]!)
    if (mailboxIsFull(address, options.now()) && !provider.bouncesLater)
      return refuse(452, '4.2.2 the mailbox is full')
    const now = Math.floor(options.now() / 60_000)
    const counted = minute.get(provider.domain)
    const count = counted?.minute === now ? counted.count + 1 : 1
    minute.set(provider.domain, { minute: now, count })
    if (count > provider.perMinute) return refuse(451, '4.7.0 too many messages, slow down')
    if (chanceOf('greylist', address, from) < provider.greylists && !seen.has(address + from)) {
      seen.add(address + from)
      return refuse(451, '4.7.1 not seen before, come again later')
    }
    return null
  }

  return new SMTPServer({
    authOptional: true,
    disabledCommands: ['AUTH', 'STARTTLS'],
    disableReverseLookup: true,
    banner: 'practice post office',
    size: 10 * 1024 * 1024,
    maxClients: 200,
    closeTimeout: 300,
    logger: false,
    onRcptTo(to, session, callback) {
      const from = session.envelope.mailFrom ? session.envelope.mailFrom.address : ''
      callback(objection(to.address.toLowerCase(), from))
    },
    onData(stream, session, callback) {
      const pieces: Buffer[] = []
      stream.on('data', (piece: Buffer) => pieces.push(piece))
      stream.on('end', () => {
        const source = Buffer.concat(pieces).toString('latin1')
        const returnPath = session.envelope.mailFrom ? session.envelope.mailFrom.address : ''
        // What is answered with yes is in the mailbox first, as a real server would have it.
        const ip = session.remoteAddress
        const all = session.envelope.rcptTo.map(({ address }) =>
          options.arrived({ returnPath, address: address.toLowerCase(), source, ip }),
        )
        Promise.all(all).then(
          () => callback(),
          () => callback(refuse(451, '4.3.0 can’t be taken just now')),
        )
      })
    },
  })
}
