import type { FetchError } from 'ofetch'
import {
  choose,
  clashed,
  heard,
  joinFields,
  keepMine,
  kept,
  lapsed,
  refused,
  saved,
  settledWith,
  shown,
  takeTheirs,
  toSave,
  unreachable,
  isAlike,
  type Asked,
  type Clash,
  type Join,
  type Kept,
  type Versioned,
} from '~~/core/choices'

/*
 * The one door through which pages change anything on the server; a lint rule keeps it so. What changes one thing goes
 * one after the other, in the order in which it was chosen, and everybody can ask whether something of it is unsaved.
 */

interface Change {
  method: 'POST' | 'PUT' | 'DELETE'
  body?: object
  /** The browser brings it over though the page goes away; at most 64 kB, as Fetch has it. */
  keepalive?: boolean
}

/** By thing: what is to be done to it, one after the other. */
const queues = new Map<string, Promise<unknown>>()

/** What a path is about: the thing whose changes keep their order. `/api/mailings/12/plan` is about `/api/mailings/12`. */
export function thingOf(path: string): string {
  const [, api, kind, id] = path.split(/[/?]/)
  return id === undefined ? `/${api}/${kind}` : `/${api}/${kind}/${id}`
}

/** Changes something, after whatever was to be changed of the same thing before; throws where the server refuses. */
export function changeAt<T = unknown>(
  path: string,
  { method, body, keepalive }: Change,
): Promise<T> {
  const of = thingOf(path)
  const unsaved = useUnsaved()
  unsaved.begin(of)
  const once = () =>
    $fetch<unknown>(path, {
      method,
      ...(body === undefined ? {} : { body }),
      ...(keepalive ? { keepalive } : {}),
      // A file goes over as it is, whatever the browser takes it for.
      ...(body instanceof Blob ? { headers: { 'Content-Type': 'application/octet-stream' } } : {}),
    } as object) as Promise<T>
  /** Where it is sensitive and the password was not given for long, it is asked for, and then it is done. */
  const send = () =>
    once().catch(async (error: FetchError<{ data?: { confirm?: boolean } }>) => {
      if (!error.data?.data?.confirm || !(await useConfirming().ask())) throw error
      return once()
    })
  // What the page sends as it goes away can't wait for its turn.
  const before = keepalive ? undefined : queues.get(of)
  const done = before ? before.then(send) : send()
  const over = done.then(
    () => {},
    () => {},
  )
  queues.set(of, over)
  void over.then(() => {
    unsaved.end(of)
    if (queues.get(of) === over) queues.delete(of)
  })
  return done
}

/** Does one thing on the server; where it refuses, its sentence becomes a notice and the answer is null. */
export async function act<T = unknown>(
  path: string,
  method: Change['method'],
  body?: object,
): Promise<T | null> {
  return orNotice(changeAt<T>(path, { method, body }))
}

/** Says something that nobody has chosen and nobody waits for, such as that one is still here. Null where nobody hears it. */
export function tell<T>(path: string, body: object): Promise<T | null> {
  return ($fetch<unknown>(path, { method: 'POST', body } as object) as Promise<T>).catch(() => null)
}

/** How a thing is kept: where it is read from, how it is written, and how two people's are joined. */
export interface Keeping<T> {
  /** The thing it belongs to; see {@link thingOf}. */
  of: string
  load: () => Promise<Versioned<T>>
  /** `before` is what the server is known to have. */
  save: (value: T, version: string | number, before: T) => Promise<Versioned<T>>
  join?: Join<T>
  /** Saved only when somebody says so: what is chosen until then is a draft. */
  manual?: boolean
  /** What its fields are called where two people's stand side by side. */
  names?: Partial<Record<string, string>>
}

/** A line that broke is tried again after this long, ms. */
const AGAIN = 3_000

export interface Keeper<T> {
  state: Readonly<Ref<Kept<T>>>
  shown: () => T | null
  settled: () => boolean
  names: Partial<Record<string, string>>
  /** What was chosen here and saved, and somebody else changed afterwards; null where nothing was. */
  overtaken: Readonly<Ref<Clash<T> | null>>
  choose: (next: T) => void
  /** Takes in how it stands on the server. */
  hear: (asked: Asked, now: Versioned<T>) => void
  /** Is called when it is asked how it stands; the answer goes to `hear` with what comes of it. */
  asks: () => Asked
  reload: () => Promise<void>
  /** Waits until nothing more can be done for it: all is saved, or something keeps it from it. */
  flush: () => Promise<void>
  /** Saves a draft. */
  save: () => Promise<void>
  again: () => void
  keepMine: () => void
  takeTheirs: () => void
  /** Chooses again what was overtaken; or leaves it as the other made it. */
  putMineBack: () => void
  leaveTheirs: () => void
}

const keepers = new Map<string, Keeper<never>>()

/** The keeper of a thing: one for each, whichever page asks, so that what is unsaved outlives its page. */
export function keeperOf<T extends object>(name: string, keeping: () => Keeping<T>): Keeper<T> {
  const known = keepers.get(name) as Keeper<T> | undefined
  if (known) return known
  const made = keeper(keeping())
  keepers.set(name, made as never)
  return made
}

/** Asks of every thing whose name begins so, before all of them are asked for at once. */
export function asksOfAll(beginning: string): Map<string, Asked> {
  const asked = new Map<string, Asked>()
  for (const [name, keeper] of keepers)
    if (name.startsWith(beginning)) asked.set(name, keeper.asks())
  return asked
}

/** Forgets all keepers: another account is signed in. */
export function forgetKeepers() {
  keepers.clear()
  queues.clear()
}

function keeper<T extends object>({
  of,
  load,
  save,
  join: given,
  names = {},
  manual = false,
}: Keeping<T>): Keeper<T> {
  const join = given ?? (joinFields as unknown as Join<T>)
  const state = shallowRef(kept<T>()) as Ref<Kept<T>>
  /** Which fields were chosen here, and as what they were saved. */
  const touched = new Set<string>()
  let own: T | null = null
  const overtaken = shallowRef<Clash<T> | null>(null) as Ref<Clash<T> | null>
  let underway: Promise<void> | null = null
  let timer: ReturnType<typeof setTimeout> | undefined
  const settled = () => settledWith(state.value)
  useUnsaved().watchOver(of, {
    settled: () => settled() || state.value.known === null,
    flush,
    problem: () =>
      state.value.clash
        ? 'Somebody else changed the same meanwhile. Choose between the two first.'
        : (state.value.problem?.words ??
          (manual && state.value.mine !== null ? 'There are changes that are not saved.' : null)),
  })

  /** Where nothing is to be saved, nothing is under way, so that the next choice is not taken for part of it. */
  function push(): Promise<void> {
    if (!underway && toSave(state.value)) underway = run()
    return underway ?? Promise.resolve()
  }

  /** Saves until there is nothing more to save; ends in the moment in which it has seen that. */
  async function run() {
    try {
      // After a line that broke it waits; see `later`.
      do await saveOnce()
      while (!state.value.problem && toSave(state.value))
    } finally {
      underway = null
    }
  }

  async function saveOnce() {
    clearTimeout(timer)
    const next = toSave(state.value)!
    state.value = next.state
    try {
      const now = await save(next.save.value, next.save.version, state.value.known!.value)
      state.value = saved(state.value, now, isAlike)
      own = now.value
      overtaken.value = null
    } catch (error) {
      const { statusCode } = error as FetchError
      if (statusCode === 412) {
        const theirs = await load().catch(() => null)
        if (theirs) state.value = clashed(state.value, theirs, join, isAlike)
        else later('What somebody else changed can’t be read just now.')
      } else if (statusCode === undefined || statusCode >= 500) later(problemOf(error).message)
      else state.value = refused(state.value, problemOf(error).message)
    }
  }

  function later(words: string) {
    state.value = unreachable(state.value, words)
    timer = setTimeout(() => void push(), AGAIN)
  }

  let orders = 0
  const asks = (): Asked => ({ savings: state.value.savings, order: ++orders })

  function hear(asked: Asked, now: Versioned<T>) {
    if (lapsed(asked, state.value)) return
    state.value = { ...state.value, order: asked.order }
    noteOvertaking(now.value)
    state.value = heard(state.value, now, join, isAlike)
    if (!manual) void push()
  }

  /** Whoever saved first sees it, too, when somebody else changes the same afterwards. */
  function noteOvertaking(theirs: T) {
    if (!own || state.value.mine !== null) return
    const mine = own
    const at = [...touched].filter((key) => !isAlike(mine[key as keyof T], theirs[key as keyof T]))
    overtaken.value = at.length ? { base: mine, mine, theirs, at } : null
  }

  async function flush() {
    if (!manual) await push()
  }

  function take(next: T) {
    const before = shown(state.value)
    for (const key of Object.keys(next))
      if (!before || !isAlike(next[key as keyof T], before[key as keyof T])) touched.add(key)
    state.value = choose(state.value, next)
    if (manual && state.value.known && isAlike(next, state.value.known.value) && !state.value.sent)
      state.value = takeTheirs(state.value)
    if (!manual) void push()
  }

  return {
    state,
    overtaken,
    shown: () => shown(state.value),
    settled,
    names,
    choose: take,
    hear,
    asks,
    save: push,
    async reload() {
      const asked = asks()
      const now = await load()
      hear(asked, now)
    },
    flush,
    again: () => void push(),
    keepMine() {
      state.value = keepMine(state.value, join)
      if (!manual) void push()
    },
    takeTheirs: () => void (state.value = takeTheirs(state.value)),
    putMineBack() {
      const was = overtaken.value
      const now = shown(state.value)
      if (!was || !now) return
      overtaken.value = null
      const mine = Object.fromEntries(was.at.map((key) => [key, was.mine[key as keyof T]]))
      take({ ...now, ...mine })
    },
    leaveTheirs() {
      own = null
      overtaken.value = null
    },
  }
}
