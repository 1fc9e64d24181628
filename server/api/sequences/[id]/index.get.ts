import { isAlike } from '~~/core/choices'
import {
  arrivalsOf,
  mailingsOfSequence,
  mapOfVersion,
  peopleInside,
  providersMailed,
  readSequences,
  standingAt,
  startableSequences,
  trafficOf,
  versionsOf,
} from '~~/database/sequences'
import { linksOfSequence, sequenceCautions, sequenceProblems } from '~~/cases/sequences'
import { teamAddresses } from '~~/database/account'
import { readFields, readLists, readTags, eventNames } from '~~/database/people'
import { mailingNames, senderOf } from '~~/database/mailings'
import { readSignUps } from '~~/database/sign-ups'
import { readCatalog, readSegments } from '~~/database/segments'
import { writeRule, type Catalog } from '~~/core/segments'
import { rulesOf, type SequenceMap } from '~~/core/sequences'

/** A sequence with its map, its mails and what came of them, and who is inside where. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const sequence = sequenceOf(event)
  const { id, name, state, map, revision, version, list_id, started_at, archived_at } = sequence
  const published = version > 0 ? mapOfVersion(db, id, version) : null
  const { inside, finished, left, heldOut } = readSequences(db).find((one) => one.id === id)!
  return {
    ...{ id, name, state, map, revision, version, listId: list_id, startedAt: started_at },
    archivedAt: archived_at,
    counts: { inside, finished, left, heldOut },
    standing: standingAt(db, id),
    traffic: trafficOf(db, id),
    mailings: mailingsOfSequence(db, id),
    people: peopleInside(db, id, 100),
    published,
    // What runs as it is drawn lacks nothing.
    problems:
      state === 'ended' || (state === 'running' && isAlike(published, map))
        ? []
        : sequenceProblems(db, sequence, clock()),
    cautions: state === 'ended' ? [] : sequenceCautions(db, sequence, clock()),
    fields: readFields(db).map(({ key, name, kind }) => ({ key, name, kind })),
    signUps: readSignUps(db, clock()).map(({ id, name }) => ({ id, name })),
    arriving: arrivalsOf(db, id),
    others: startableSequences(db).filter((one) => one.id !== id),
    lists: readLists(db).map(({ id, name }) => ({ id, name })),
    segments: readSegments(db).map(({ id, name }) => ({ id, name })),
    events: eventNames(db),
    tags: readTags(db),
    otherMailings: mailingNames(db, 200),
    links: linksOfSequence(db, sequence),
    sender: senderOf(db, null),
    team: teamAddresses(db),
    versions: versionsOf(db, id),
    providers: providersMailed(db, id),
    rules: inWords(published ? [map, published] : [map], readCatalog(db)),
  }
})

const inWords = (maps: readonly SequenceMap[], catalog: Catalog) =>
  Object.fromEntries(
    maps.flatMap(rulesOf).map((rule) => [JSON.stringify(rule), writeRule(rule, catalog)]),
  )
