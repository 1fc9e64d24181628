import { nameOf } from '~~/core/people'
import { labelledKinds } from '~~/core/labels'
import { parseRule } from '~~/core/segments'
import { labelsNamed, labelUses } from '~~/database/labels'
import { peoplePage } from '~~/database/people'
import { mailingsWithTotals } from '~~/database/mailings'
import { readSequences } from '~~/database/sequences'
import { readCatalog, readSegments } from '~~/database/segments'
import { readSignUps } from '~~/database/sign-ups'

/** People, mailings, segments, sequences, sign-ups and labels whose name has these words, and the words as a rule where they are one. */
export default defineEventHandler((event) => {
  const words = String(getQuery(event).q ?? '')
    .trim()
    .slice(0, 2_000)
  if (words.length < 2)
    return {
      ...{ people: [], mailings: [], segments: [], sequences: [], signUps: [], labels: [] },
      ...{ rule: null, fault: null },
    }
  const { db, clock } = satchel()
  const read = parseRule(words, readCatalog(db))
  const lower = words.toLowerCase()
  const uses = labelUses(db)
  return {
    people: peoplePage(db, { search: words }, 6, 0).map((row) => ({
      id: row.id,
      address: row.address,
      name: nameOf(row),
    })),
    mailings: mailingsWithTotals(db)
      .filter(
        (mailing) =>
          mailing.name.toLowerCase().includes(lower) ||
          mailing.subject.toLowerCase().includes(lower),
      )
      .slice(0, 6)
      .map(({ id, name, state }) => ({ id, name, state })),
    segments: readSegments(db)
      .filter(({ name }) => name.toLowerCase().includes(lower))
      .slice(0, 6)
      .map(({ id, name }) => ({ id, name })),
    sequences: readSequences(db)
      .filter(({ name }) => name.toLowerCase().includes(lower))
      .slice(0, 6)
      .map(({ id, name, state }) => ({ id, name, state })),
    signUps: readSignUps(db, clock())
      .filter(({ name }) => name.toLowerCase().includes(lower))
      .slice(0, 6)
      .map(({ id, name, state }) => ({ id, name, state })),
    labels: labelsNamed(db, words)
      .slice(0, 6)
      .flatMap(({ id, name }) =>
        labelledKinds.map((kind) => ({
          ...{ id, name, kind },
          n: uses.filter((use) => use.labelId === id && use.kind === kind).length,
        })),
      )
      .filter(({ n }) => n > 0),
    rule: read.ok ? words : null,
    // What begins as a rule, and then can't be read, is said; a name that somebody looks for is no such thing.
    fault: read.ok || read.at === 0 || !/\s/.test(words) ? null : { text: words, ...read },
  }
})
