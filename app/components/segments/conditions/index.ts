import type { Component } from 'vue'
import type { Condition } from '~~/core/segments'
import AddressCondition from './AddressCondition.vue'
import EventCondition from './EventCondition.vue'
import FieldCondition from './FieldCondition.vue'
import JoinedCondition from './JoinedCondition.vue'
import LanguageCondition from './LanguageCondition.vue'
import MailCondition from './MailCondition.vue'
import OnListCondition from './OnListCondition.vue'
import OrderedCondition from './OrderedCondition.vue'
import OrdersCondition from './OrdersCondition.vue'
import PausedCondition from './PausedCondition.vue'
import RankCondition from './RankCondition.vue'
import ReadsCondition from './ReadsCondition.vue'
import SegmentCondition from './SegmentCondition.vue'
import SequenceCondition from './SequenceCondition.vue'
import SignedUpCondition from './SignedUpCondition.vue'
import SourceCondition from './SourceCondition.vue'
import SuppressedCondition from './SuppressedCondition.vue'
import TaggedCondition from './TaggedCondition.vue'
import TierCondition from './TierCondition.vue'

/** The chips of each kind of condition. */
export const chipsOf: Readonly<Record<Condition['kind'], Component>> = {
  address: AddressCondition,
  event: EventCondition,
  field: FieldCondition,
  joined: JoinedCondition,
  language: LanguageCondition,
  mail: MailCondition,
  'on-list': OnListCondition,
  ordered: OrderedCondition,
  orders: OrdersCondition,
  paused: PausedCondition,
  rank: RankCondition,
  reads: ReadsCondition,
  segment: SegmentCondition,
  sequence: SequenceCondition,
  'signed-up': SignedUpCondition,
  source: SourceCondition,
  suppressed: SuppressedCondition,
  tagged: TaggedCondition,
  tier: TierCondition,
}
