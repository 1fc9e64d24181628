import { defineStore } from 'pinia'
import {
  insertPart,
  isGroup,
  partAt,
  type Explanation,
  type Group,
  type Path,
  type Rule,
  type RuleProblem,
  type Vocabulary,
} from '~~/core/segments'
import type { PastSizes, SegmentAnswer } from '~~/core/segments'

export type SegmentCounts = SegmentAnswer & { text: string; problems: RuleProblem[] }

export interface SavedSegmentDetails {
  id: number
  name: string
  rule: Rule
  version: number
  frozenAt: number | null
  query: string | null
  usedBy: {
    mailings: { id: number; name: string; state: string }[]
    sequences: { id: number; name: string; state: string }[]
    segments: { id: number; name: string }[]
  }
}

export type EditorVocabulary = Vocabulary & {
  currency: string
  goneTags: { id: number; name: string }[]
  links: { mailingId: number; no: number; words: string; url: string }[]
}

/** While somebody types, questions are held back this long, ms. */
const PAUSE = 160
/** The past is asked for once the present is known and the hands rest, ms. */
const REST = 700

interface SegmentDraft {
  name: string
  rule: Rule
}
const nothing: SegmentDraft = { name: '', rule: { kind: 'all', of: [] } }
/** A new segment that was begun and not saved: it is there again when one begins a new one. */
let unfinished: SegmentDraft = nothing
const isEmpty = (rule: Rule) => isGroup(rule) && rule.of.length === 0

/** A segment is kept by this; one for each. It is saved when its editor says so. */
function segmentKeeper(id: number): Keeper<SegmentDraft> {
  const path = `/api/segments/${id}`
  return keeperOf<SegmentDraft>(path, () => ({
    of: path,
    manual: true,
    names: { name: 'Name', rule: 'Rules' },
    async load() {
      const got = await request<SavedSegmentDetails>(path)
      return { value: { name: got.name, rule: asGroup(got.rule) }, version: got.version }
    },
    async save(value, version) {
      const done = await changeAt<{ version: number }>(path, {
        method: 'PUT',
        body: { ...value, version },
      })
      return { value, version: done.version }
    },
  }))
}

/** The segment that is open: its rule with undo, and what it comes to while it is edited. */
export const useSegment = defineStore('segment', () => {
  const saved = shallowRef<SavedSegmentDetails | null>(null)
  /** Which one on file is open; null: a new one. */
  const openId = ref<number | null>(null)
  const keeper = computed(() => (openId.value === null ? null : segmentKeeper(openId.value)))
  /** Nothing is shown of one on file, and nothing can be chosen, before the server has said what it is. */
  const known = computed(() => openId.value === null || saved.value !== null)
  /** As a new one is being made; what is changed of one on file is its keeper's. */
  const made = shallowRef<SegmentDraft>(nothing)
  const draft = computed<SegmentDraft>(() => keeper.value?.shown() ?? made.value)
  function write(next: SegmentDraft) {
    if (!known.value) return
    if (keeper.value) keeper.value.choose(next)
    else unfinished = made.value = next
  }
  const name = computed({
    get: () => draft.value.name,
    set: (next) => write({ ...draft.value, name: next }),
  })
  const rule = computed<Group>({
    get: () => asGroup(draft.value.rule),
    set: (next) => write({ ...draft.value, rule: next }),
  })
  const past = shallowRef<Group[]>([])
  const future = shallowRef<Group[]>([])
  const counts = shallowRef<SegmentCounts | null>(null)
  const sizes = shallowRef<PastSizes | null>(null)
  const problem = ref<string | null>(null)
  const asking = ref(false)
  const vocabulary = shallowRef<EditorVocabulary | null>(null)
  const frozen = computed(() => saved.value?.frozenAt != null)
  /** Its rule can't be changed: its people are fixed, or it is not for who is signed in to change. */
  const fixed = computed(() => frozen.value || !useSession().may('PUT /api/segments/[id]'))
  const changed = computed(() => !keeper.value || keeper.value.state.value.mine !== null)
  let timer: ReturnType<typeof setTimeout> | undefined
  let latest = 0
  /** How often one was opened: what is answered for any but the last comes too late. */
  let opened = 0
  /** The question under way; nobody waits for its answer once there is a newer one. */
  let underway: AbortController | null = null

  /** Opens a saved segment, or a new one with a rule to begin from. */
  async function open(id: number | null, start: { name: string; rule: Rule } | null = null) {
    saved.value = null
    openId.value = id
    counts.value = null
    sizes.value = null
    problem.value = null
    const mine = ++opened
    if (id !== null) {
      const keeper = segmentKeeper(id)
      const asked = keeper.asks()
      const got = await request<SavedSegmentDetails>(`/api/segments/${id}`).catch((error) => {
        if (mine === opened) problem.value = problemOf(error).message
      })
      if (!got || mine !== opened) return
      keeper.hear(asked, {
        value: { name: got.name, rule: asGroup(got.rule) },
        version: got.version,
      })
      saved.value = got
    } else
      made.value =
        start && (start.name || !isEmpty(start.rule))
          ? { ...start, rule: asGroup(start.rule) }
          : unfinished
    past.value = []
    future.value = []
    void ask_(0)
    vocabulary.value = await request<EditorVocabulary>('/api/segments/vocabulary').catch(() => null)
  }

  /** Takes a changed rule: the old one can be had back. */
  function change(next: Rule) {
    if (frozen.value || !known.value) return
    past.value = [...past.value.slice(-199), rule.value]
    future.value = []
    rule.value = asGroup(next)
    void ask_(PAUSE)
  }

  /** Adds a line to the group at `within`, at its end. What it asks about is to be said next: see RuleLines. */
  function add(within: Path, part: Rule) {
    const path = [...within, (partAt(rule.value, within) as Group).of.length]
    change(insertPart(rule.value, path, part))
    added.value = path
  }
  /** The line that was added last, until its value is written in. */
  const added = shallowRef<Path | null>(null)

  function undo() {
    const before = past.value.at(-1)
    if (!before) return
    past.value = past.value.slice(0, -1)
    future.value = [rule.value, ...future.value]
    rule.value = before
    void ask_(0)
  }

  function redo() {
    const [after, ...rest] = future.value
    if (!after) return
    future.value = rest
    past.value = [...past.value, rule.value]
    rule.value = after
    void ask_(0)
  }

  /** Asks what the rule comes to. Only the answer to the latest question is shown. */
  async function ask_(pause: number) {
    clearTimeout(timer)
    underway?.abort()
    underway = new AbortController()
    const { signal } = underway
    const mine = ++latest
    asking.value = true
    await new Promise<void>((go) => (timer = setTimeout(go, pause)))
    if (mine !== latest) return
    try {
      const got = await question<SegmentCounts>(
        '/api/segments/ask',
        { rule: questionOf(), segmentId: saved.value?.id ?? null },
        signal,
      )
      if (mine !== latest) return
      counts.value = got
      problem.value = null
      timer = setTimeout(() => void askPast(mine, signal), REST)
    } catch (error) {
      if (mine !== latest) return
      problem.value = problemOf(error).message
    }
    asking.value = false
  }

  /** Asks what the rule's size was before, unless a newer question was asked meanwhile. */
  async function askPast(mine: number, signal: AbortSignal) {
    if (frozen.value) return
    const got = await question<PastSizes>(
      '/api/segments/past-sizes',
      { rule: rule.value },
      signal,
    ).catch(() => null)
    if (mine === latest) sizes.value = got
  }

  /** A frozen segment is asked for by its number: its people are fixed, its rule is only how they came. */
  function questionOf(): Rule {
    return frozen.value ? { kind: 'segment', segmentId: saved.value!.id } : rule.value
  }

  /** Saves; its id, or null where it was refused (the notice says why, and nothing here is lost). */
  async function save(): Promise<number | null> {
    if (!known.value) return null
    if (!saved.value || !keeper.value) {
      const { name, rule } = draft.value
      const added = await act<{ id: number }>('/api/segments', 'POST', { name, rule })
      if (added) unfinished = nothing
      return added?.id ?? null
    }
    await keeper.value.save()
    if (!keeper.value.settled()) return null
    saved.value = { ...saved.value, ...draft.value }
    return saved.value.id
  }

  function why(personId: number) {
    return orNotice(question<Explanation>('/api/segments/why', { rule: questionOf(), personId }))
  }

  /** Gives up what is not saved. */
  function discard() {
    past.value = [...past.value.slice(-199), rule.value]
    future.value = []
    if (keeper.value) keeper.value.takeTheirs()
    else unfinished = made.value = nothing
    void ask_(0)
  }

  return {
    saved,
    keeper,
    known,
    discard,
    name,
    rule,
    add,
    added,
    past,
    future,
    counts,
    sizes,
    problem,
    asking,
    vocabulary,
    frozen,
    fixed,
    changed,
    open,
    change,
    undo,
    redo,
    refresh: () => ask_(0),
    save,
    why,
  }
})

function asGroup(rule: Rule): Group {
  return isGroup(rule) && rule.kind === 'all' ? rule : { kind: 'all', of: [rule] }
}
