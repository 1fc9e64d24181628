import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { inProcess, serving, type Measure } from './harness'

const MESSAGES = 5_000
interface Sent {
  rate: number
  bytes: number
  peak: number
  /** Processor time of one message, and of its RSA signature alone, ms. */
  processor: number
  signature: number
}

/**
 * 5,000 personalised messages of 18 KB HTML to a local SMTP server in another process, with every
 * state in the database, against a plain loop of nodemailer's pool that sends ready-made messages
 * of the same size. DKIM is off on both sides.
 */
export const sends: Measure = {
  name: 'send',
  unit: 'messages/s',
  promise: { atLeast: 0.8 },
  runs: 3,
  run: () => besidePool('unsigned'),
}

/** The same with everything on: ours are signed as they go, the others are ready-made with their signature. */
export const signedSends: Measure = {
  name: 'send-signed',
  unit: 'messages/s',
  promise: { atLeast: 0.72 },
  runs: 3,
  run: () => besidePool('signed'),
}

/** The peak of memory of a mailing to 1,000,000, against that of one to 10,000. */
export const sendMemory: Measure = {
  name: 'send-memory',
  unit: 'MB',
  promise: { atMost: 1.25 },
  runs: 1,
  async run() {
    const few = await sendTo(10_000, 'unsigned')
    const many = await sendTo(1_000_000, 'unsigned')
    return { ours: many.peak, reference: few.peak, notes: { rate: many.rate } }
  },
}

async function besidePool(signed: 'signed' | 'unsigned') {
  const ours = await sendTo(MESSAGES, signed)
  const server = await serving('./smtp-sink')
  const reference = await inProcess<{ rate: number }>(
    './send-reference',
    server.line,
    String(ours.bytes),
    signed,
  )
  await server.stop()
  return {
    ours: ours.rate,
    reference: reference.rate,
    notes: { bytes: ours.bytes, processor: ours.processor, signature: ours.signature },
  }
}

async function sendTo(people: number, signed: 'signed' | 'unsigned'): Promise<Sent> {
  const folder = mkdtempSync(join(tmpdir(), 'satchel-bench-'))
  const server = await serving('./smtp-sink')
  await inProcess('./send-people', folder, String(people))
  const sent = await inProcess<Sent>('./send-ours', folder, server.line, String(people), signed)
  await server.stop()
  rmSync(folder, { recursive: true })
  return sent
}
