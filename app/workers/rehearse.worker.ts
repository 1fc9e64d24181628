import {
  DRAWS,
  habitsOf,
  rehearse,
  together,
  type Audience,
  type Draw,
  type Rehearsal,
  type Rehearsing,
} from '~~/core/rehearsal'
import type { SequenceMap } from '~~/core/sequences'

/** A map to rehearse, and perhaps another beside it, with the same people and the same luck. */
export interface RehearsalAsked {
  no: number
  map: SequenceMap
  against: SequenceMap | null
  audience: Audience
  rehearsing: Rehearsing
}

/** What came of it so far, of as many draws as it says. */
export interface RehearsalAnswer {
  no: number
  rehearsal: Rehearsal
  against: Rehearsal | null
}

/** After how many draws what came so far is told. */
const TOLD = [1, 4, 12, 24, DRAWS]
let newest = 0

/** Rehearses off the page’s own thread; what is asked anew ends what was asked before. */
self.onmessage = async (message: MessageEvent<RehearsalAsked>) => {
  const { no, map, against, audience, rehearsing } = message.data
  newest = no
  const habits = habitsOf(audience)
  const [draws, others]: Draw[][] = [[], []]
  for (let one = 0; one < DRAWS; one++) {
    draws!.push(rehearse(map, audience, rehearsing, one, habits))
    if (against) others!.push(rehearse(against, audience, rehearsing, one, habits))
    if (TOLD.includes(one + 1))
      self.postMessage({
        no,
        rehearsal: together(draws!),
        against: against && together(others!),
      } satisfies RehearsalAnswer)
    // Whatever was asked meanwhile is heard between two draws.
    await new Promise((go) => setTimeout(go))
    if (no !== newest) return
  }
}
