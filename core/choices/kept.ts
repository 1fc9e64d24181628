/**
 * Something that stands on the server and is changed in a page.
 *
 * What holds at any time, whatever was answered, refused, lost or came late:
 * - What is shown holds the last choice that was made here of every field, until its maker takes somebody else's.
 * - One saving is under way at most, and each says over which version it was made, so the server can tell.
 * - What somebody else changed meanwhile is joined with what was chosen here; where both changed the same, neither
 *   is written before somebody has chosen between the two.
 * - It is settled only when the server is known to have all that is shown.
 */
export interface Kept<T> {
  /** As the server has it, as far as known here; null: nobody has answered yet. */
  known: Versioned<T> | null
  /** As it stands here, where that is not on the server yet; null: nothing is unsaved. */
  mine: T | null
  /** What is on its way to the server; null: nothing is. */
  sent: T | null
  /** What was sent and never answered: it may have arrived, and is then nobody else's change. */
  lost: T | null
  /** Why what stands here is not saved. */
  problem: Problem | null
  /** What somebody else made of the same; nothing is saved until one of the two is chosen. */
  clash: Clash<T> | null
  /** How many savings have begun or ended. */
  savings: number
  /** The number of the newest answer that was taken in. */
  order: number
}

/** When it was asked how it stands: after how many savings, and as the how-manieth question. */
export interface Asked {
  savings: number
  order: number
}

/** `version` is whatever the server says; two are the same thing exactly when they are equal. */
export interface Versioned<T> {
  value: T
  version: string | number
}

/** `again`: it may go well if nothing but time goes by; else something has to be chosen otherwise first. */
export interface Problem {
  words: string
  again: boolean
}

export interface Clash<T> {
  /** Before either changed it. */
  base: T
  mine: T
  theirs: T
  /** Which fields both changed. */
  at: string[]
}

/** What comes of `base` when one made `mine` of it and somebody else `theirs`; what both changed stays as here. */
export type Join<T> = (base: T, mine: T, theirs: T) => { value: T; contested: string[] }

type Same<T> = (a: T, b: T) => boolean

/** Nothing is known yet. */
export function kept<T>(): Kept<T> {
  return {
    ...{ known: null, mine: null, sent: null, lost: null, problem: null, clash: null },
    ...{ savings: 0, order: 0 },
  }
}

/** As it is shown; null while nothing is known. */
export function shown<T>({ known, mine }: Kept<T>): T | null {
  return mine ?? known?.value ?? null
}

/** Whether the server has all that is shown, and it is known to. */
export function settledWith<T>({ known, mine, sent, clash }: Kept<T>): boolean {
  return known !== null && mine === null && sent === null && clash === null
}

/** Takes a choice over. What was refused may be right now, so it is tried again. Before anything is known, nothing can be chosen. */
export function choose<T>(state: Kept<T>, next: T): Kept<T> {
  if (state.known === null) return state
  const clash = state.clash && { ...state.clash, mine: next }
  return { ...state, mine: next, problem: null, clash }
}

/** What is to go to the server now, over which version; null: nothing, or not now. */
export function toSave<T>(state: Kept<T>): { state: Kept<T>; save: Versioned<T> } | null {
  const { known, mine, sent, problem, clash } = state
  if (!known || mine === null || sent !== null || clash || (problem && !problem.again)) return null
  return {
    state: { ...state, sent: mine, problem: null, savings: state.savings + 1 },
    save: { value: mine, version: known.version },
  }
}

/** The server took what was sent: it has this now. What was chosen meanwhile is still to be saved. */
export function saved<T>(state: Kept<T>, now: Versioned<T>, same: Same<T>): Kept<T> {
  const { mine, sent } = state
  const done = mine === null || (sent !== null && same(mine, sent))
  return {
    ...state,
    known: now,
    mine: done ? null : mine,
    sent: null,
    lost: null,
    problem: null,
    savings: state.savings + 1,
  }
}

/**
 * How it stands on the server. An answer that was asked for before something was saved says what was then: the
 * caller leaves it out (see {@link lapsed}). While a saving is under way nothing can be said of whose it is, so it is
 * left for the answer to that.
 */
export function heard<T>(state: Kept<T>, now: Versioned<T>, join: Join<T>, same: Same<T>): Kept<T> {
  const { known, mine, sent, clash } = state
  if (sent !== null) return state
  if (known === null || known.version === now.version) return { ...state, known: now }
  if (mine === null) return { ...state, known: now, clash: null }
  const arrived = state.lost !== null && same(state.lost, now.value)
  const base = arrived ? now.value : (clash?.base ?? known.value)
  const { value, contested } = join(base, mine, now.value)
  if (contested.length)
    return { ...state, known: now, clash: { base, mine, theirs: now.value, at: contested } }
  const nothingLeft = same(value, now.value)
  return { ...state, known: now, clash: null, mine: nothingLeft ? null : value }
}

/**
 * Whether an answer about how it stands is too old to be taken: a saving began or ended since it was asked for, or a
 * question that was asked later has been answered already.
 */
export function lapsed<T>(asked: Asked, now: Kept<T>): boolean {
  return asked.savings !== now.savings || asked.order < now.order
}

/** Somebody else was faster: the server keeps theirs. */
export function clashed<T>(
  state: Kept<T>,
  theirs: Versioned<T>,
  join: Join<T>,
  same: Same<T>,
): Kept<T> {
  return heard({ ...state, sent: null, savings: state.savings + 1 }, theirs, join, same)
}

/** The server does not take it as it is, and says why. What was chosen stays, and is said to be unsaved. */
export function refused<T>(state: Kept<T>, words: string): Kept<T> {
  return { ...state, sent: null, problem: { words, again: false }, savings: state.savings + 1 }
}

/** Nobody answered. It is tried again, over the version known; whether it had arrived shows then. */
export function unreachable<T>(state: Kept<T>, words: string): Kept<T> {
  return {
    ...state,
    ...{ sent: null, lost: state.sent, problem: { words, again: true } },
    savings: state.savings + 1,
  }
}

/** Of two that changed the same, that of here: the other's other changes stay. */
export function keepMine<T>(state: Kept<T>, join: Join<T>): Kept<T> {
  const { clash } = state
  if (!clash) return state
  return { ...state, mine: join(clash.base, clash.mine, clash.theirs).value, clash: null }
}

/** Of two that changed the same, the other's; what was chosen here goes. */
export function takeTheirs<T>(state: Kept<T>): Kept<T> {
  return { ...state, mine: null, problem: null, clash: null }
}
