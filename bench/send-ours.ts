import { createPrivateKey, sign } from 'node:crypto'
import { join } from 'node:path'
import type { Letter } from '../core/letters'
import { newBlock, rowOf, type Block } from '../core/letters/document'
import { richText } from '../core/letters/rich-text'
import { closeDatabase, openDatabase } from '../database'
import { engineNotes } from '../database/jobs'
import {
  createMailing,
  mailingById,
  moveMailing,
  recountTotals,
  planRecipients,
} from '../database/mailings'
import { bytesOf, mouldMessage, pourMessage } from '../core/delivery'
import { fillFor, personContext, unpackLetter } from '../core/letters/rendering'
import { readAccount } from '../database/account'
import { madeUpEngine } from '../engine/made-up'
import { contentNow } from '../cases/letters'
import { sender } from '../engine/send'
import { keepHeapSteady } from '../engine/steady-heap'

/**
 * Sends a mailing to the people that `send-people` made, as the engine does, signed or not; prints the rate, the size
 * of one message, and the peak of memory in MB.
 */
const [folder, port, people, signed] = process.argv.slice(2) as [string, string, string, string]
const PEOPLE = Number(people)
keepHeapSteady()
const db = openDatabase(join(folder, 'ours'), { durable: true })
const letter = eighteenKilobytes()
/** The only one that was made. */
const listId = 1
const id = createMailing(db, { name: 'Bench', listId, letter }, 0)
moveMailing(db, id, ['draft'], 'sending', { started_at: 0 })
planRecipients(db, id, { listId, rule: null }, 0)
const url = 'https://mail.bench.example'
const engine = {
  ...madeUpEngine(db, {
    data: folder,
    url,
    smtpUrl: `smtp://127.0.0.1:${port}`,
    connections: 10,
    sign: signed === 'signed',
  }),
  clock: Date.now,
  hostClock: Date.now,
  notes: engineNotes(folder, 'bench'),
}
const sending = sender(engine)
const began = performance.now()
const spentBefore = process.cpuUsage()
while (mailingById(db, id)!.state !== 'sent') await sending.step()
const seconds = (performance.now() - began) / 1000
const { user, system } = process.cpuUsage(spentBefore)
const processor = (user + system) / 1000 / PEOPLE
await sending.close()
const counted = recountTotals(db, id)
if (counted.accepted !== PEOPLE) throw new Error(JSON.stringify(counted))
const peak = process.resourceUsage().maxRSS / 1024
console.log(
  JSON.stringify({
    rate: PEOPLE / seconds,
    bytes: await sizeOfOne(),
    peak,
    processor,
    signature: signatureTime(),
  }),
)
closeDatabase(db)

function eighteenKilobytes(): Letter {
  const blocks: Block[] = [
    { ...newBlock('heading', 'title'), text: richText('Force 5 till Sunday') } as Block,
  ]
  for (let i = 0; i < 4; i++)
    blocks.push({
      ...newBlock('text', `t${i}`),
      text: richText([
        { type: 'text', text: 'Dear ' },
        {
          type: 'fillIn',
          attrs: {
            expression:
              i % 2 ? 'person.town | default: "you"' : 'person.first_name | default: "there"',
          },
        },
        {
          type: 'text',
          text: ', the wind comes steady over the harbour and the beach below the workshop is wide at low water. '.repeat(
            4,
          ),
        },
        {
          type: 'text',
          text: 'See the forecast',
          marks: [{ type: 'link', attrs: { href: `https://bench.example/forecast/${i}` } }],
        },
      ]),
    } as Block)
  blocks.push(newBlock('footer', 'footer'))
  return {
    subject: 'Wind for {{ person.first_name | default: "you" }}',
    previewText: '',
    document: { version: 1, rows: blocks.map(rowOf) },
  }
}

/** What one RSA signature with the account's key takes alone, ms. */
function signatureTime(): number {
  const key = createPrivateKey(readAccount(db)!.dkim_private_key)
  const head = Buffer.alloc(600)
  const before = performance.now()
  for (let n = 0; n < 500; n++) sign('sha256', head, key)
  return (performance.now() - before) / 500
}

async function sizeOfOne(): Promise<number> {
  const account = readAccount(db)!
  const { packed } = await contentNow(db, mailingById(db, id)!, engine)
  const compiled = unpackLetter(packed)
  const mould = mouldMessage(
    id,
    compiled.parts,
    {
      name: 'Bench',
      address: 'hello@bench.example',
      url,
      list: { key: 'wind-notes', name: 'Wind notes' },
      replies: 'sender',
    },
    Buffer.from(account.token_key, 'hex'),
  )
  const context = personContext(
    { address: 'a@b.example', values: { first_name: 'Tamsin' } },
    { list: '', sender: '', mailing: '' },
  )
  const { raw } = pourMessage(
    mould,
    { personId: 1, address: 'a@b.example', name: '' },
    fillFor(compiled, context),
    0,
  )
  return bytesOf(raw).bytes.length
}
