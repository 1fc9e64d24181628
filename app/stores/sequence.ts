import {
  insertStep,
  lineOf,
  removeStep,
  type SequenceMap,
  type Start,
  type Step,
} from '~~/core/sequences'

/** What the server says of a sequence. */
export interface OpenSequence {
  id: number
  name: string
  state: 'draft' | 'running' | 'paused' | 'ended'
  map: SequenceMap
  revision: number
  version: number
  listId: number | null
  startedAt: number | null
  counts: { inside: number; finished: number; left: number }
  /** By step: how many stand there. */
  standing: Record<string, number>
  mailings: SequenceMail[]
  people: {
    id: number
    address: string
    first_name: string | null
    last_name: string | null
    step: string
    due: number
    version: number
    entered_at: number
  }[]
  problems: string[]
  lists: { id: number; name: string }[]
  segments: { id: number; name: string }[]
  events: string[]
}

export interface SequenceMail {
  id: number
  name: string
  subject: string
  started_at: number | null
  accepted: number | null
  complained: number | null
  opened: number | null
  clicked: number | null
}

/** The sequence that is open: each change is kept at once, and can be undone. */
export const useSequence = defineStore('sequence', () => {
  const sequence = shallowRef<OpenSequence | null>(null)
  const problem = ref('')
  /** The step whose settings are shown; `start` for Start. */
  const chosen = ref<string | null>(null)
  const past = shallowRef<Change[]>([])
  const future = shallowRef<Change[]>([])
  /** The sequence that is to be open: answers about any other come too late. */
  let wanted = 0
  /** By sequence: the revision that is on file, as far as known here. */
  const revisions = new Map<number, number>()
  let saving: Promise<unknown> = Promise.resolve()
  /** Savings that have no answer yet: what the server says before they are through is old. */
  let pending = 0

  type Change = { name: string; listId: number | null; map: SequenceMap }
  const line = computed(() => (sequence.value ? lineOf(sequence.value.map) : []))
  /** While it runs its map is fixed; what people inside walk through does not change under their feet. */
  const canChange = computed(
    () => sequence.value?.state === 'draft' || sequence.value?.state === 'paused',
  )

  async function open(id: number) {
    if (wanted !== id) {
      wanted = id
      sequence.value = null
      chosen.value = null
      past.value = []
      future.value = []
    }
    await refresh()
  }

  /** Asks the server how the open sequence stands. */
  async function refresh() {
    const id = wanted
    try {
      const got = await request<OpenSequence>(`/api/sequences/${id}`)
      if (pending > 0 || id !== wanted) return
      // Asked before a change was kept, and answered after it: that is old.
      if (got.revision < (revisions.get(id) ?? 0)) return
      revisions.set(id, got.revision)
      sequence.value = got
      problem.value = ''
    } catch (error) {
      if (id === wanted) problem.value = problemOf(error).message
    }
  }

  const now = (): Change => {
    const { name, listId, map } = sequence.value!
    return { name, listId, map }
  }

  async function set(change: Partial<Change>) {
    if (!sequence.value) return
    past.value = [...past.value, now()].slice(-100)
    future.value = []
    await save({ ...now(), ...change })
  }

  /** One saving after the other, each over the revision that the one before made. */
  function save(next: Change): Promise<unknown> {
    const { id } = sequence.value!
    sequence.value = { ...sequence.value!, ...next }
    pending++
    saving = saving.then(async () => {
      const body = { ...next, revision: revisions.get(id)! }
      const saved = await ask<{ revision: number }>(`/api/sequences/${id}`, { method: 'PUT', body })
      if (saved) revisions.set(id, saved.revision)
    })
    return saving.finally(() => pending--).then(refresh)
  }

  async function undo() {
    const before = past.value.at(-1)
    if (!before) return
    past.value = past.value.slice(0, -1)
    future.value = [...future.value, now()]
    await save(before)
  }
  async function redo() {
    const next = future.value.at(-1)
    if (!next) return
    future.value = future.value.slice(0, -1)
    past.value = [...past.value, now()]
    await save(next)
  }

  async function addWait(after: string | null) {
    const id = crypto.randomUUID()
    const wait = { kind: 'wait' as const, ms: 2 * 24 * 60 * 60_000 }
    await set({ map: insertStep(sequence.value!.map, after, id, wait) })
    chosen.value = id
  }

  async function addMail(after: string | null) {
    const many = line.value.filter(({ step }) => step.kind === 'mail').length
    const body = { name: `${sequence.value!.name}, mail ${many + 1}` }
    const of = sequence.value!.id
    const made = await ask<{ id: number }>(`/api/sequences/${of}/mails`, { method: 'POST', body })
    if (!made || sequence.value?.id !== of) return
    const id = crypto.randomUUID()
    await set({
      map: insertStep(sequence.value!.map, after, id, { kind: 'mail', mailingId: made.id }),
    })
    chosen.value = id
  }

  async function remove(id: string) {
    chosen.value = null
    await set({ map: removeStep(sequence.value!.map, id) })
    useNotices().say('The step is taken out.', { label: 'Undo', run: undo })
  }

  async function changeStep(id: string, step: Step) {
    const { map } = sequence.value!
    await set({ map: { ...map, steps: { ...map.steps, [id]: step } } })
  }

  async function changeStart(start: Start) {
    await set({ map: { ...sequence.value!.map, start } })
  }

  return {
    ...{ sequence, problem, chosen, past, future, line, canChange },
    ...{ open, set, undo, redo, addWait, addMail, remove, changeStep, changeStart },
  }
})
