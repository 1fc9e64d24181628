import { defineStore } from 'pinia'
import {
  isGroup,
  type Explanation,
  type Group,
  type Rule,
  type RuleProblem,
  type Vocabulary,
} from '~~/core/segments'
import type { PastSizes, SegmentAnswer } from '~~/server/asker/questions'

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
  links: { mailingId: number; no: number; words: string; url: string }[]
}

/** While somebody types, questions are held back this long, ms. */
const PAUSE = 160
/** The past is asked for once the present is known and the hands rest, ms. */
const REST = 700

/** The segment that is open: its rule with undo, and what it comes to while it is edited. */
export const useSegment = defineStore('segment', () => {
  const saved = shallowRef<SavedSegmentDetails | null>(null)
  const name = ref('')
  const rule = shallowRef<Group>({ kind: 'all', of: [] })
  const past = shallowRef<Group[]>([])
  const future = shallowRef<Group[]>([])
  const counts = shallowRef<SegmentCounts | null>(null)
  const sizes = shallowRef<PastSizes | null>(null)
  const problem = ref<string | null>(null)
  const asking = ref(false)
  const vocabulary = shallowRef<EditorVocabulary | null>(null)
  const frozen = computed(() => saved.value?.frozenAt != null)
  const changed = computed(
    () =>
      !saved.value ||
      name.value !== saved.value.name ||
      JSON.stringify(rule.value) !== JSON.stringify(asGroup(saved.value.rule)),
  )
  let timer: ReturnType<typeof setTimeout> | undefined
  let latest = 0
  /** How often one was opened: what is answered for any but the last comes too late. */
  let opened = 0
  /** The question under way; nobody waits for its answer once there is a newer one. */
  let underway: AbortController | null = null

  /** Opens a saved segment, or a new one with a rule to begin from. */
  async function open(id: number | null, start: { name: string; rule: Rule } | null = null) {
    saved.value = null
    counts.value = null
    sizes.value = null
    problem.value = null
    const mine = ++opened
    if (id !== null) {
      const got = await request<SavedSegmentDetails>(`/api/segments/${id}`).catch((error) => {
        if (mine === opened) problem.value = problemOf(error).message
      })
      if (!got || mine !== opened) return
      saved.value = got
    }
    name.value = saved.value?.name ?? start?.name ?? ''
    rule.value = asGroup(saved.value?.rule ?? start?.rule ?? { kind: 'all', of: [] })
    past.value = []
    future.value = []
    void ask_(0)
    vocabulary.value = await request<EditorVocabulary>('/api/segments/vocabulary').catch(() => null)
  }

  /** Takes a changed rule: the old one can be had back. */
  function change(next: Rule) {
    if (frozen.value) return
    past.value = [...past.value.slice(-199), rule.value]
    future.value = []
    rule.value = asGroup(next)
    void ask_(PAUSE)
  }

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
      const got = await request<SegmentCounts>('/api/segments/ask', {
        method: 'POST',
        body: { rule: questionOf(), segmentId: saved.value?.id ?? null },
        signal,
      })
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
    const got = await request<PastSizes>('/api/segments/past-sizes', {
      method: 'POST',
      body: { rule: rule.value },
      signal,
    }).catch(() => null)
    if (mine === latest) sizes.value = got
  }

  /** A frozen segment is asked for by its number: its people are fixed, its rule is only how they came. */
  function questionOf(): Rule {
    return frozen.value ? { kind: 'segment', segmentId: saved.value!.id } : rule.value
  }

  /** Saves; its id, or null where it was refused (the notice says why, and nothing here is lost). */
  async function save(): Promise<number | null> {
    const body = { name: name.value, rule: rule.value }
    if (!saved.value) {
      const made = await ask<{ id: number }>('/api/segments', { method: 'POST', body })
      return made?.id ?? null
    }
    const { id, version } = saved.value
    const done = await ask<{ version: number }>(`/api/segments/${id}`, {
      method: 'PUT',
      body: { ...body, version },
    })
    if (!done) return null
    saved.value = { ...saved.value, ...body, version: done.version }
    return id
  }

  function why(personId: number) {
    return ask<Explanation>('/api/segments/why', {
      method: 'POST',
      body: { rule: questionOf(), personId },
    })
  }

  return {
    saved,
    name,
    rule,
    past,
    future,
    counts,
    sizes,
    problem,
    asking,
    vocabulary,
    frozen,
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
