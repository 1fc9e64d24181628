import { once } from 'node:events'
import type { AddressInfo } from 'node:net'
import { SMTPServer } from 'smtp-server'

/** A post office on this machine for tests, which takes everything that it has no objection to. */
export interface Office {
  /** Where mail is handed over. */
  url: string
  taken: { from: string; to: string; raw: Buffer }[]
  /** What it says to every recipient; null: yes. */
  objection: { code: number; text: string } | null
  close(): void
}

export async function openOffice(): Promise<Office> {
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['AUTH', 'STARTTLS'],
    logger: false,
    onRcptTo(_address, _session, done) {
      const { objection } = office
      done(objection && Object.assign(new Error(objection.text), { responseCode: objection.code }))
    },
    onData(stream, { envelope: { mailFrom, rcptTo } }, done) {
      const pieces: Buffer[] = []
      stream.on('data', (piece: Buffer) => pieces.push(piece))
      stream.on('end', () => {
        const from = mailFrom ? mailFrom.address : ''
        office.taken.push({ from, to: rcptTo[0]!.address, raw: Buffer.concat(pieces) })
        done()
      })
    },
  })
  server.listen(0, '127.0.0.1')
  await once(server.server, 'listening')
  const { port } = server.server.address() as AddressInfo
  const office: Office = {
    url: `smtp://127.0.0.1:${port}`,
    taken: [],
    objection: null,
    close: () => server.close(() => {}),
  }
  return office
}
