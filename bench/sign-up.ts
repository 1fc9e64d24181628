import { createHmac } from 'node:crypto'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { createChallenge } from 'altcha-lib/v1'
import { makeToken } from '../core/delivery'
import { formFrom, signUpTemplates } from '../core/sign-ups'
import { closeDatabase, one, openDatabase, q } from '../database'
import { readAccount } from '../database/account'
import { fillAccount } from '../database/made-up'
import { addList } from '../database/people'
import { addSignUp, publishSignUp, signUpById } from '../database/sign-ups'
import { median, serving, type Measure } from './harness'
import { loadForms, type Posting } from './load'
import { startWeb } from './web-process'

const ROUNDS = 10
const REQUESTS = 3_000
const CONNECTIONS = 32
/** No form takes all of it at once without being doubted. */
const FORMS = 100

/**
 * Forms sent in a second: each a person of their own, valid, with double opt-in, kept with its evidence and its mail queued;
 * against a bare h3 handler that inserts one row. In short rounds by turns.
 */
export const signUps: Measure = {
  name: 'sign-up',
  unit: 'forms/s',
  promise: { atLeast: 0.4 },
  runs: 3,
  async run() {
    const data = mkdtempSync(join(tmpdir(), 'satchel-bench-'))
    const db = openDatabase(data)
    fillAccount(db, { zone: 'UTC', sender_address: 'hello@bench.example' })
    const forms = makeForms(db)
    const bare = await serving('./sign-up-reference', join(data, 'bare.db'))
    const web = await startWeb(data, { SATCHEL_BEHIND_PROXY: '1' })
    const rates = { ours: [] as number[], reference: [] as number[] }
    let n = 0
    const some = (): Promise<Posting[]> => Promise.all(Array.from({ length: REQUESTS }, posting))
    async function posting(): Promise<Posting> {
      const { path, token, mail, id } = forms[n % forms.length]!
      const reader = ++n
      const from = `10.${reader >> 16}.${(reader >> 8) & 255}.${reader & 255}`
      const body = new URLSearchParams({
        token,
        work: await workOf(id),
        version: '1',
        language: 'en',
        [mail]: `reader${reader}@inkpost.example`,
      })
      return { path, body: body.toString(), from }
    }
    const key = Buffer.from(readAccount(db)!.token_key, 'hex')
    const hmacKey = createHmac('sha256', key).update('sign-up work').digest('hex')
    /** What a browser hands in that did the work; here the answer is known beforehand. */
    async function workOf(form: number) {
      const number = 7
      const { maxnumber: _, ...set } = await createChallenge({
        ...{ hmacKey, number, maxNumber: 10, params: { form: String(form) } },
      })
      return btoa(JSON.stringify({ ...set, number }))
    }
    try {
      // The first round of each is for the compiler.
      for (let round = 0; round <= ROUNDS; round++) {
        const reference = await loadForms(Number(bare.line), await some(), CONNECTIONS)
        const ours = await loadForms(web.port, await some(), CONNECTIONS)
        if (round === 0) continue
        rates.reference.push(reference)
        rates.ours.push(ours)
      }
    } finally {
      await web.stop()
      await bare.stop()
    }
    const queued = one(
      db,
      q
        .selectFrom('sign_up_sendings')
        .select((eb) => eb.fn.countAll<number>().as('n'))
        .where('state', '=', 'pending')
        .where('send_due', 'is not', null),
    )!.n
    closeDatabase(db)
    rmSync(data, { recursive: true })
    if (queued !== REQUESTS * (ROUNDS + 1)) throw new Error(`${queued} letters queued`)
    return { ours: median(rates.ours), reference: median(rates.reference) }
  },
}

function makeForms(db: ReturnType<typeof openDatabase>) {
  const list = { id: addList(db, { name: 'Wind notes', description: '' }, 0), name: 'Wind notes' }
  const key = Buffer.from(readAccount(db)!.token_key, 'hex')
  const weekly = signUpTemplates.find((template) => template.key === 'weekly')!
  return Array.from({ length: FORMS }, () => {
    let part = 0
    const form = formFrom(weekly, list, () => `p${++part}`)
    const id = addSignUp(db, 'Wind notes', form, 0)
    publishSignUp(db, id, 1, null, 0)
    const asked = form.parts.find(({ kind }) => kind === 'field')!
    return {
      id,
      path: `/s/${signUpById(db, id)!.key}`,
      token: makeToken(key, 'form', id, Date.now() - 20_000),
      mail: `f.${asked.id}`,
    }
  })
}

/** Bytes of the script that other sites load, gzipped, against what is promised. */
export const embedded: Measure = {
  name: 'embed',
  unit: 'bytes',
  promise: { atMost: 1 },
  runs: 1,
  run() {
    const script = readFileSync('.output/public/s/forms.js')
    return Promise.resolve({ ours: gzipSync(script, { level: 9 }).length, reference: 10_240 })
  },
}
