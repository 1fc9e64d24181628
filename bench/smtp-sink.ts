import { SMTPServer } from 'smtp-server'
import type { AddressInfo } from 'node:net'

/** An SMTP server that takes everything and keeps nothing; prints its port. */
const server = new SMTPServer({
  authOptional: true,
  disabledCommands: ['AUTH', 'STARTTLS'],
  disableReverseLookup: true,
  logger: false,
  onData(stream, _session, callback) {
    stream.resume()
    stream.on('end', () => callback())
  },
})
server.listen(0, '127.0.0.1', () => console.log((server.server.address() as AddressInfo).port))
