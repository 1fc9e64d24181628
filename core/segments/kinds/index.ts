import { address, type Address } from './address'
import { event, type DidEvent } from './event'
import { field, type HasField, type ReadyField } from './field'
import { joined, type Joined } from './joined'
import type { ConditionKind } from './kind'
import { language, type Reads } from './language'
import { mail, type Mail } from './mail'
import { onList, type OnList } from './on-list'
import { ordered, type Ordered } from './ordered'
import { orders, type Orders } from './orders'
import { paused, type PausedMail } from './paused'
import { rank, type Ranked, type ReadyRanked } from './rank'
import { reads, type ReadsOn } from './reads'
import { segment, type InSegment } from './segment'
import { sequence, type InSequence } from './sequence'
import { signedUp, type SignedUp } from './signed-up'
import { source, type CameBy } from './source'
import { suppressed, type Suppressed } from './suppressed'
import { tagged, type Tagged } from './tagged'
import { tier, type InTier } from './tier'

/** What a rule can ask. */
export type Condition = Asks | HasField | Ranked
/** The same with what it refers to found. */
export type ReadyCondition = Asks | ReadyField | ReadyRanked

export type ConditionOf<Kind extends Condition['kind']> = Extract<Condition, { kind: Kind }>

type Asks =
  | Mail
  | InTier
  | Joined
  | Orders
  | Ordered
  | OnList
  | Tagged
  | InSegment
  | InSequence
  | DidEvent
  | CameBy
  | SignedUp
  | Suppressed
  | PausedMail
  | ReadsOn
  | Reads
  | Address

/** Every kind of condition, those first that are asked most. */
export const kinds: {
  [Kind in Condition['kind']]: ConditionKind<
    ConditionOf<Kind>,
    Extract<ReadyCondition, { kind: Kind }>
  >
} = {
  field,
  mail,
  tier,
  joined,
  orders,
  ordered,
  'on-list': onList,
  tagged,
  segment,
  sequence,
  event,
  rank,
  source,
  'signed-up': signedUp,
  suppressed,
  paused,
  reads,
  language,
  address,
}

/** The kind of a condition, by which it is asked everything else. */
export function kindOf(of: { kind: Condition['kind'] }): ConditionKind<Condition, ReadyCondition> {
  // Which kind belongs to which condition is what `kinds` says; a union can't.
  return kinds[of.kind] as unknown as ConditionKind<Condition, ReadyCondition>
}

/** Words with which a rule or a condition begins, so that no field of such a name is taken for one. */
export const firstWords: ReadonlySet<string> = new Set([
  ...['everyone', 'nobody', 'not', 'neither', 'all', 'any', 'none', 'never', 'field'],
  ...Object.values(kinds).flatMap(({ phrases }) =>
    phrases.map(({ begins }) => begins.split(' ')[0]!),
  ),
])
