import {
  blocksOf,
  conditionsOf,
  fillInsOf,
  linksOf,
  readerValue,
  type Letter,
  type LetterDocument,
  type Rendition,
} from '../../core/letters'
import { planProblems, variantName } from '../../core/dispatch'
import { blockersOf, proofOf, withOverruled, type Mark, type ProofFacts } from '../../core/proof'
import { readyRule } from '../../core/segments'
import type { LetterSender } from '../../core/senders'
import { dayOf } from '../../core/time'
import { readAccount, domainCheck } from '../../database/account'
import {
  countAtDomain,
  countAudience,
  countGaps,
  type Audience,
  readCatalog,
} from '../../database/segments'
import {
  feedState,
  linkChecks,
  letterheadOf,
  wholeLetterOf,
  letterOf,
  picksOffered,
} from '../../database/letters'
import { readFields, listById } from '../../database/people'
import {
  senderOf,
  approvalOf,
  audienceOf,
  countWithout,
  overrulingOf,
  planOf,
  renditionsFor,
  trialsOf,
  variantLetters,
  type Mailing,
} from '../../database/mailings'
import type { Database } from '../../database'

/** Values every reader has. */
const always = ['person.address', 'list.name', 'sender.name', 'mailing.name']

/** The marks of a mailing as it stands now, over its real audience. Links not known are put on the list to ask. */
export function proofMailing(
  db: Database,
  mailing: Mailing,
  now: number,
  known: {
    renditions?: Rendition[] | null
    weight?: ProofFacts['weight']
    misspelt?: ProofFacts['misspelt']
    people?: ProofFacts['people']
  } = {},
  change: Partial<Letter> = {},
): Mark[] {
  const account = readAccount(db)
  const letter = { ...wholeLetterOf(db, mailing.letter_id), ...change }
  const audience = audienceOf(db, mailing)
  const keys = new Set(readFields(db).map((field) => field.key))
  const gaps = new Map<string, number>(always.map((path) => [path, 0]))
  for (const { fillIn } of fillInsOf(letter)) {
    const key = /^person\.(\w+)$/.exec(fillIn.path)?.[1]
    if (key && keys.has(key) && !gaps.has(fillIn.path))
      gaps.set(fillIn.path, audience ? countGaps(db, audience, key, now) : 0)
    else if (readerValue(fillIn.path) && !gaps.has(fillIn.path)) {
      const without = audience ? countWithout(db, audience, fillIn.path, now) : 0
      if (without !== null) gaps.set(fillIn.path, without)
    }
  }
  const audienceCount = audience ? countAudience(db, audience, now) : 0
  const marks = proofOf({
    letter,
    listName: mailing.list_id === null ? null : (listById(db, mailing.list_id)?.name ?? null),
    audienceCount,
    segmentProblems: [audience?.rule, audience?.leftOut].flatMap((rule) =>
      rule ? readyRule(rule, readCatalog(db)).problems.map(({ message }) => message) : [],
    ),
    ruleProblems: ruleProblems(db, letter.document),
    renditions:
      known.renditions === undefined
        ? goingOut(db, mailing, letter.document, now)
        : known.renditions,
    offered: picksOffered(db, letter.document, now),
    feeds: new Map(
      blocksOf(letter.document).flatMap((block) =>
        block.kind === 'feed' && block.url
          ? [[block.url, feedState(db, block.url, now).entries]]
          : [],
      ),
    ),
    approval: approvalOf(db, mailing.letter_id, audienceCount),
    postalAddress: account?.postal_address ?? '',
    letterhead: letterheadOf(db, mailing.letter_id),
    goesOutOn: dayOf(Math.max(mailing.scheduled_at ?? now, now), account?.zone ?? 'UTC'),
    weight: known.weight ?? null,
    misspelt: known.misspelt ?? null,
    people: known.people ?? null,
    domain: domainCheck(db, now)?.check ?? null,
    sender: account && senderFacts(db, senderOf(db, mailing), audience, now),
    trials: triedIn(db, mailing),
    names: [...always, ...[...keys].map((key) => `person.${key}`)],
    gaps,
    links: linkChecks(
      db,
      linksOf(letter.document).map(({ url }) => url),
      now,
    ),
  })
  return withOverruled(marks, overrulingOf(mailing))
}

/** What became of a mailing's letter where it was tried; and whether it was this letter. */
function triedIn(db: Database, { id, letter_id }: Mailing): ProofFacts['trials'] {
  const { version } = letterOf(db, letter_id)
  return trialsOf(db, id).map((trial) => ({ ...trial, changed: trial.version !== version }))
}

/** Who a letter comes from, and how many of its readers are at the same domain. */
function senderFacts(
  db: Database,
  { name, address }: LetterSender,
  audience: Audience | null,
  now: number,
): ProofFacts['sender'] {
  const domain = address.slice(address.lastIndexOf('@') + 1).toLowerCase()
  return { name, address, atSameDomain: audience ? countAtDomain(db, audience, domain, now) : 0 }
}

/** What holds a mailing, in words: blockers in its letter and in those of its variants, and what its plan lacks. */
export function dispatchBlockers(db: Database, mailing: Mailing, now: number): string[] {
  const plan = planOf(mailing)
  const blockers = (of: Mailing, change?: Partial<Letter>) =>
    blockersOf(proofMailing(db, of, now, {}, change)).map(({ title }) => title)
  const own = blockers(mailing)
  const ofVariants = [
    ...variantLetters(db, plan).map(({ name, mailing: { letter_id } }) => ({
      name,
      found: blockers({ ...mailing, letter_id }),
    })),
    ...(plan.test?.of === 'subject' ? plan.test.variants.slice(1) : []).map((variant, i) => ({
      name: variantName(i + 1),
      found: blockers(mailing, {
        subject: variant.subject,
        ...(variant.previewText ? { previewText: variant.previewText } : {}),
      }),
    })),
  ].flatMap(({ name, found }) =>
    found.filter((title) => !own.includes(title)).map((title) => `variant ${name}: ${title}`),
  )
  return [...own, ...ofVariants, ...planProblems(plan)]
}

/** The versions of a letter that go out; null where there is one for everybody, or no audience yet. */
export function goingOut(
  db: Database,
  mailing: Mailing,
  document: LetterDocument,
  now: number,
): Rendition[] | null {
  const audience = audienceOf(db, mailing)
  return audience && conditionsOf(document).of.size > 0
    ? renditionsFor(db, document, audience, now)
    : null
}

/** What the letter's rules refer to and is not there any more. */
function ruleProblems(db: Database, document: LetterDocument) {
  const parts = [...document.rows, ...blocksOf(document)]
  return parts.flatMap(({ id, shownTo }) => {
    if (!shownTo || !('rule' in shownTo)) return []
    const { problems } = readyRule(shownTo.rule, readCatalog(db))
    return problems.map(({ message }) => ({ id, problem: message }))
  })
}
