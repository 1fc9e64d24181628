import { simpleParser } from 'mailparser'
import { readInbound } from '../core/inbound'
import { corpus } from '../core/inbound/corpus'
import { median, type Measure } from './harness'

const MANY = 20_000
/** By turns, so that what else the machine does meets both. */
const ROUNDS = 5

/**
 * Mixed messages that come back read a second: bounces, reports, automatic answers, replies, each told apart and traced;
 * against the MIME parser alone with the same settings.
 */
export const reports: Measure = {
  name: 'reports',
  unit: 'messages/s',
  promise: { atLeast: 0.5 },
  runs: 3,
  async run() {
    const mails = Array.from({ length: MANY / ROUNDS }, (_, i) => corpus[i % corpus.length]!.raw)
    const rates = { ours: [] as number[], parser: [] as number[] }
    const rate = async (work: (raw: string) => Promise<unknown>) => {
      const began = performance.now()
      for (const raw of mails) await work(raw)
      return mails.length / ((performance.now() - began) / 1000)
    }
    for (let round = 0; round < ROUNDS; round++) {
      rates.parser.push(
        await rate((raw) =>
          simpleParser(Buffer.from(raw, 'latin1'), {
            skipTextToHtml: true,
            skipImageLinks: true,
            keepDeliveryStatus: true,
          }),
        ),
      )
      rates.ours.push(await rate(readInbound))
    }
    return { ours: median(rates.ours), reference: median(rates.parser) }
  },
}
