import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { inProcess, serving, type Measure } from './harness'

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
  async run() {
    const folder = mkdtempSync(join(tmpdir(), 'satchel-bench-'))
    const server = await serving('./smtp-sink.ts')
    const ours = await inProcess<{ rate: number; bytes: number }>(
      './send-ours.ts',
      folder,
      server.line,
    )
    const reference = await inProcess<{ rate: number }>(
      './send-reference.ts',
      server.line,
      String(ours.bytes),
    )
    await server.stop()
    rmSync(folder, { recursive: true })
    return { ours: ours.rate, reference: reference.rate, notes: { bytes: ours.bytes } }
  },
}
