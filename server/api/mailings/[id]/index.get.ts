import type { Rule } from '~~/core/segments'
import { footerNow, footerOf } from '~~/cases/letters'
import type { Database } from '~~/database'
import { frequencyCap } from '~~/database/account'
import { contentOf, dueLater } from '~~/database/sending'
import { audienceWaterfall, countAudience, readSegments } from '~~/database/segments'
import { letterheadIdOf, letterheadOf, letterOf } from '~~/database/letters'
import {
  senderOf,
  audienceOf,
  settingsVersion,
  totalsOf,
  wishOf,
  planOf,
} from '~~/database/mailings'
import { readFields, listById } from '~~/database/people'
import { sequenceById } from '~~/database/sequences'

/** The segments of which a rule asks for any; none where it asks for something else. */
function segmentsOf(rule: Rule | null | undefined): number[] {
  const parts = rule?.kind === 'any' ? rule.of : rule ? [rule] : []
  const ids = parts.flatMap((part) => (part.kind === 'segment' ? part.segmentId : []))
  return ids.length === parts.length ? ids : []
}

function sequenceName(db: Database, id: number) {
  const { name } = sequenceById(db, id)!
  return { id, name }
}

/** One mailing with its letter, its audience step by step, and its totals. */
export default defineEventHandler((event) => {
  const { db, clock, hostClock } = satchel()
  const mailing = mailingOf(event)
  const audience = audienceOf(db, mailing)
  const asked = `${mailing.id} ${JSON.stringify(audience)}`
  const { pace_per_minute } = account()
  const sender = senderOf(db, mailing)
  const sent = mailing.started_at === null ? null : contentOf(db, mailing.id)
  return {
    ...mailing,
    settingsVersion: settingsVersion(db, mailing),
    /** How long it can still be called back, ms; 0 where not. */
    callbackMs:
      mailing.state === 'scheduled' ? Math.max(0, (mailing.callback_until ?? 0) - hostClock()) : 0,
    wish: mailing.state === 'scheduled' ? wishOf(mailing, account().zone) : null,
    localTime: planOf(mailing).pace === 'local-time',
    letter: letterOf(db, mailing.letter_id),
    letterheadId: letterheadIdOf(db, mailing.letter_id),
    // What went out keeps the look that it had.
    letterhead: sent?.letterhead ?? letterheadOf(db, mailing.letter_id),
    footer: sent ? footerOf(sent) : footerNow(db, mailing.list_id),
    postalAddress: sent?.postalAddress ?? account().postal_address,
    sequence: mailing.sequence_id === null ? null : sequenceName(db, mailing.sequence_id),
    list: mailing.list_id === null ? null : (listById(db, mailing.list_id)?.name ?? null),
    lists: countedLists(db),
    fields: readFields(db),
    joinedWithinDays:
      audience?.rule?.kind === 'joined' && audience.rule.when.is === 'last-days'
        ? audience.rule.when.days
        : null,
    segmentIds: segmentsOf(audience?.rule),
    leftOutIds: segmentsOf(audience?.leftOut),
    cap: frequencyCap(db),
    pastCap: mailing.past_cap === 1,
    segments: readSegments(db).map(({ id, name }) => ({ id, name })),
    waterfall: audience
      ? countedSeldom(`steps ${asked}`, () => audienceWaterfall(db, audience, clock()))
      : null,
    /** Who would get it at the time it is set for, were nothing to happen but time going by. */
    eligibleThen:
      audience && mailing.state === 'scheduled' && mailing.scheduled_at! > clock()
        ? countedSeldom(`then ${mailing.scheduled_at} ${asked}`, () =>
            countAudience(db, audience, mailing.scheduled_at!),
          )
        : null,
    totals: totalsOf(db, mailing.id) ?? null,
    later: mailing.state === 'sending' ? dueLater(db, mailing.id, clock()) : null,
    pace: pace_per_minute,
    sender: `${sender.name} <${sender.address}>`,
  }
})
