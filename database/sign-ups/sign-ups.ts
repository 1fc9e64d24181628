import { randomBytes } from 'node:crypto'
import { sql, type Selectable } from 'kysely'
import { readForm, type SignUpForm } from '../../core/sign-ups'
import { DAY } from '../../core/time'
import { all, one, preparedOnce, q, run, transact, type Database } from '../query'
import { endTest, testVersion } from './tests'
import type { Schema } from '../schema'

export type SignUp = Omit<Selectable<Schema['sign_ups']>, 'form'> & { form: SignUpForm }

/** All sign-ups by name, with how many sent them in during the last 7 days and how many wait for a look. */
export function readSignUps(db: Database, now: number) {
  const count = (where: ReturnType<typeof sql<boolean>>) =>
    sql<number>`(select count(*) from sign_up_sendings as s where s.sign_up_id = sign_ups.id and ${where})`
  return all(
    db,
    q
      .selectFrom('sign_ups')
      .select(['id', 'key', 'name', 'state', 'live_version'])
      .select(sql<SignUpForm['kind']>`form ->> '$.kind'`.as('kind'))
      .select([
        count(
          sql`s.at > ${now - 7 * DAY} and s.state in ('pending', 'confirmed', 'lapsed', 'already')`,
        ).as('lately'),
        count(sql`s.state = 'for-a-look'`).as('toLook'),
      ])
      .where('deleted_at', 'is', null)
      .orderBy(sql`name collate nocase`)
      .orderBy('id'),
  )
}

export function signUpById(db: Database, id: number): SignUp | undefined {
  const row = one(
    db,
    q.selectFrom('sign_ups').selectAll().where('id', '=', id).where('deleted_at', 'is', null),
  )
  return row && withForm(row)
}

/** What is published under a public address. */
export interface Published {
  signUp: Pick<SignUp, 'id' | 'key' | 'name' | 'state'>
  version: number
  form: SignUpForm
}

/** The sign-up of a public address, and what is published there; null where nothing is to be seen. */
export function liveSignUp(db: Database, key: string): Published | null {
  const row = byKey(db).one({ key })
  if (!row || row.live_version === null) return null
  const { live_version: version, ...signUp } = row
  const form = formOfVersion(db, row.id, version)
  return form && { signUp, version, form }
}

const byKey = preparedOnce<
  { key: string },
  Pick<SignUp, 'id' | 'key' | 'name' | 'state' | 'live_version'>
>((value) =>
  q
    .selectFrom('sign_ups')
    .select(['id', 'key', 'name', 'state', 'live_version'])
    .where('key', '=', value('key'))
    .where('deleted_at', 'is', null),
)

/** Every sign-up that is live, with what is published. */
export function liveSignUps(db: Database) {
  const keys = q.selectFrom('sign_ups').select('key').where('state', '=', 'live')
  return all(db, keys.where('deleted_at', 'is', null).orderBy('id')).flatMap(
    ({ key }) => liveSignUp(db, key) ?? [],
  )
}

/** Forms as they were published, by their database, sign-up and version: none is ever changed, and each is asked for often. */
const published = new WeakMap<object, Map<string, SignUpForm>>()
const MOST_REMEMBERED = 200

/** The form as it was published with a version. */
export function formOfVersion(db: Database, id: number, version: number): SignUpForm | null {
  let forms = published.get(db.sqlite)
  if (!forms) published.set(db.sqlite, (forms = new Map()))
  const known = forms.get(`${id} ${version}`)
  if (known) return known
  const row = one(
    db,
    q
      .selectFrom('sign_up_versions')
      .select('form')
      .where('sign_up_id', '=', id)
      .where('version', '=', version),
  )
  const form = row ? readForm(JSON.parse(row.form)) : null
  if (form) {
    if (forms.size >= MOST_REMEMBERED) forms.clear()
    forms.set(`${id} ${version}`, form)
  }
  return form
}

/** Whether the draft is what is published now. */
export function isPublished(db: Database, { id, form, live_version }: SignUp): boolean {
  const live = live_version === null ? null : formOfVersion(db, id, live_version)
  return live !== null && JSON.stringify(live) === JSON.stringify(form)
}

/** What a sign-up is called, also one that was deleted since. */
export function signUpName(db: Database, id: number): string {
  return one(db, q.selectFrom('sign_ups').select('name').where('id', '=', id))?.name ?? ''
}

/** Every version with when it was published and by whom, the latest first. */
export function versionsOf(db: Database, id: number) {
  return all(
    db,
    q
      .selectFrom('sign_up_versions')
      .select(['version', 'at', 'by_name'])
      .where('sign_up_id', '=', id)
      .orderBy('version', 'desc'),
  )
}

function withForm(row: Selectable<Schema['sign_ups']>): SignUp {
  const form = readForm(JSON.parse(row.form))
  if (!form) throw new Error('A stored form is always readable.')
  return { ...row, form }
}

/** Makes a sign-up as a draft; its id. */
export function addSignUp(db: Database, name: string, form: SignUpForm, now: number): number {
  const key = randomBytes(6).toString('base64url').replace(/[-_]/g, 'x')
  const values = { key, name, form: JSON.stringify(form), created_at: now }
  return run(db, q.insertInto('sign_ups').values(values)).id
}

/** Changes the draft over the revision its editor saw. False where somebody was faster. */
export function changeSignUp(
  db: Database,
  id: number,
  { name, form }: { name: string; form: SignUpForm },
  sawRevision: number,
): boolean {
  const change = q
    .updateTable('sign_ups')
    .set({ name, form: JSON.stringify(form), revision: sawRevision + 1 })
    .where('id', '=', id)
    .where('revision', '=', sawRevision)
  return run(db, change).changes === 1
}

/**
 * Publishes the draft that its editor saw: what stands in public from now on, which ends a test that runs; or with `asTest`
 * beside what stands there, by lot. Its version; null where it has changed since.
 */
export function publishSignUp(
  db: Database,
  id: number,
  sawRevision: number,
  byName: string | null,
  now: number,
  asTest = false,
): number | null {
  return transact(db, () => {
    const found = one(
      db,
      q
        .selectFrom('sign_ups')
        .select(['form', 'live_version'])
        .where('id', '=', id)
        .where('revision', '=', sawRevision)
        .where('deleted_at', 'is', null),
    )
    if (!found) return null
    const version = (versionsOf(db, id)[0]?.version ?? 0) + 1
    run(
      db,
      q
        .insertInto('sign_up_versions')
        .values({ sign_up_id: id, version, form: found.form, at: now, by_name: byName }),
    )
    if (asTest && found.live_version !== null) {
      if (!testVersion(db, id, version, now)) throw new Error('A test has room for this version.')
      return version
    }
    endTest(db, id, null, now)
    const set = { live_version: version, state: 'live' as const }
    run(db, q.updateTable('sign_ups').set(set).where('id', '=', id))
    return version
  })
}

/** Moves a sign-up from one of some states to another; whether it was in one of them. */
export function moveSignUp(
  db: Database,
  id: number,
  from: readonly SignUp['state'][],
  to: SignUp['state'],
): boolean {
  const move = q.updateTable('sign_ups').set({ state: to }).where('id', '=', id)
  return run(db, move.where('state', 'in', from)).changes === 1
}

/** Deletes a sign-up, or brings it back; what was sent in by it stays, as it is the proof of what was agreed to. */
export function setSignUpDeleted(db: Database, id: number, at: number | null): boolean {
  const set = q.updateTable('sign_ups').set({ deleted_at: at }).where('id', '=', id)
  return run(db, set.where('deleted_at', at === null ? 'is not' : 'is', null)).changes === 1
}
