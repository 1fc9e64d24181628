import { isAlike } from '~~/core/choices'
import type { LetterSender } from '~~/core/senders'
import type { Field } from '~~/core/people'
import { sequenceMails } from './sequence-mails'
import {
  branchAt,
  changeStep as withStep,
  insertStep,
  joinAt,
  moveBranch,
  putBranch,
  removeStep,
  removeWay as withoutWay,
  stepsInOrder,
  repaired,
  type Branch,
  type MapMark,
  type Repair,
  type SequenceResults,
  type NewStep,
  type SequenceMap,
  type Spot,
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
  /** The map by which people come in; what is drawn beside it is `map`. Null: it has never run. */
  published: SequenceMap | null
  listId: number | null
  startedAt: number | null
  archivedAt: number | null
  /** Who was held out is none of those who left. */
  counts: { inside: number; finished: number; left: number; heldOut: number }
  /** By step: how many stand there. */
  standing: Record<string, number>
  /** By step: how many went by each of its ways. */
  traffic: Record<string, number[]>
  mailings: SequenceMail[]
  people: {
    id: number
    address: string
    first_name: string | null
    last_name: string | null
    step: string
    due: number
    version: number
    /** Which time they are inside, counted from 0. */
    round: number
    entered_at: number
  }[]
  /** What keeps it from running, and what may not be meant. */
  problems: MapMark[]
  cautions: MapMark[]
  fields: Pick<Field, 'key' | 'name' | 'kind'>[]
  signUps: { id: number; name: string }[]
  /** How many wait to be let in. */
  arriving: number
  /** Sequences that people can be let into by a step. */
  others: { id: number; name: string }[]
  lists: { id: number; name: string }[]
  segments: { id: number; name: string }[]
  events: string[]
  tags: { id: number; name: string }[]
  /** Those that are no sequence's, the newest first. */
  otherMailings: { id: number; name: string }[]
  /** Where the links of its mails lead. */
  links: { mailingId: number; url: string; words: string }[]
  /** The account's, which holds where the sequence has none of its own. */
  sender: LetterSender
  /** Where the team reads mail. */
  team: string[]
  /** By which people came in, the latest first. */
  versions: { version: number; at: number }[]
  /** The providers of those whom it mailed, the largest first. */
  providers: string[]
  /** Its rules in the words of the segment language, by each as JSON. */
  rules: Record<string, string>
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

/** What of a sequence is changed on its page. */
export interface SequenceChange {
  name: string
  listId: number | null
  map: SequenceMap
}

const changeOf = ({ name, listId, map }: OpenSequence): SequenceChange => ({ name, listId, map })

/** A sequence is kept by this; one for each. */
function sequenceKeeper(id: number): Keeper<SequenceChange> {
  const path = `/api/sequences/${id}`
  return keeperOf<SequenceChange>(path, () => ({
    of: path,
    names: { name: 'Name', listId: 'List', map: 'Its steps' },
    async load() {
      const got = await request<OpenSequence>(path)
      return { value: changeOf(got), version: got.revision }
    },
    async save(value, revision) {
      const body = { ...value, revision }
      const saved = await changeAt<{ revision: number }>(path, { method: 'PUT', body })
      return { value, version: saved.revision }
    },
  }))
}

/** What a step is like when it is put in. */
const fresh: Record<Exclude<Step['kind'], 'mail'>, NewStep> = {
  wait: { kind: 'wait', ms: 2 * 24 * 60 * 60_000 },
  fork: { kind: 'fork', ways: [{ when: { is: 'clicked', mail: null }, next: null }] },
  split: { kind: 'split', ways: [{ share: 500, next: null }] },
  do: { kind: 'do', acts: [] },
  goal: { kind: 'goal', name: '', when: { is: 'ordered' }, out: true },
}

/** The sequence that is open: each change is kept at once, and can be undone. */
export const useSequence = defineStore('sequence', () => {
  const onServer = shallowRef<OpenSequence | null>(null)
  const keeper = computed(() => (onServer.value ? sequenceKeeper(onServer.value.id) : null))
  /** As the server has it, but for what was changed here and is not saved yet. */
  const sequence = computed<OpenSequence | null>(() => {
    const here = keeper.value?.shown()
    return onServer.value && here ? { ...onServer.value, ...here } : onServer.value
  })
  const problem = ref('')
  /** The step whose settings are shown; `start` for Start. */
  const chosen = ref<string | null>(null)
  const past = shallowRef<SequenceChange[]>([])
  const future = shallowRef<SequenceChange[]>([])
  /** The sequence that is to be open: answers about any other come too late. */
  let wanted = 0

  /** Its steps, each behind all that lead to it. */
  const line = computed(() => (sequence.value ? stepsInOrder(sequence.value.map) : []))
  /** What is changed while it runs is drawn beside it: what people inside walk through does not change under their feet. */
  const canChange = computed(
    () => sequence.value?.state !== 'ended' && useSession().may('PUT /api/sequences/[id]'),
  )
  /** Whether the map is another than the one by which people come in. */
  const differs = computed(
    () => !!sequence.value?.published && !isAlike(sequence.value.map, sequence.value.published),
  )
  /** What keeps it from being started now, in words: it lacks something, or that is not known yet; null where nothing does. */
  const waits = computed(() => {
    if (!onServer.value) return 'Asking how it stands…'
    const unsaved = useUnsaved()
    const of = `/api/sequences/${onServer.value.id}`
    if (unsaved.problemWith(of)) return unsaved.problemWith(of)
    if (!unsaved.isSettled(of)) return 'Saving what you changed…'
    if (onServer.value.revision !== keeper.value!.state.value.known?.version)
      return 'Asking what it lacks…'
    return problem.value || null
  })

  /** The figures of some rounds, by the map that they went by; null: results are of all. */
  const narrowed = shallowRef<SequenceResults['figures']>(null)
  /** Those that are asked for are not known yet, and no others are to be shown for them. */
  const counting = ref(false)
  /** The same with the map by which people come in, or came in who are looked at, and what came of it. */
  const asItRuns = computed<OpenSequence | null>(() => {
    const of = sequence.value
    if (!of || !narrowed.value) return of && { ...of, map: of.published ?? of.map }
    const { mailings, ...figures } = narrowed.value
    const none = { accepted: 0, complained: 0, opened: 0, clicked: 0 }
    const mails = new Map(mailings.map((one) => [one.id, one]))
    return {
      ...{ ...of, ...figures },
      mailings: of.mailings.map((mail) => ({ ...mail, ...(mails.get(mail.id) ?? none) })),
    }
  })

  async function open(id: number) {
    if (wanted !== id) {
      wanted = id
      onServer.value = null
      chosen.value = null
      narrowed.value = null
      past.value = []
      future.value = []
    }
    await refresh()
  }

  /** Asks the server how the open sequence stands. */
  async function refresh() {
    const id = wanted
    const kept = sequenceKeeper(id)
    const asked = kept.asks()
    try {
      const got = await request<OpenSequence>(`/api/sequences/${id}`)
      if (id !== wanted) return
      kept.hear(asked, { value: changeOf(got), version: got.revision })
      // Asked before a change was kept, and answered after it: its map is old, and so is what it is said to lack.
      if (got.revision < Number(kept.state.value.known?.version ?? 0)) return
      onServer.value = got
      problem.value = ''
    } catch (error) {
      if (id === wanted) problem.value = problemOf(error).message
    }
  }

  const now = (): SequenceChange => changeOf(sequence.value!)

  async function set(change: Partial<SequenceChange>) {
    if (!sequence.value) return
    past.value = [...past.value, now()].slice(-100)
    future.value = []
    await save({ ...now(), ...change })
  }

  async function save(next: SequenceChange): Promise<void> {
    const kept = keeper.value!
    kept.choose(next)
    await kept.flush()
    await refresh()
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

  /** A step that is put in is chosen at once: what is chosen while that is being saved stays chosen. */
  async function setAndChoose(map: SequenceMap, id: string) {
    const saved = set({ map })
    chosen.value = id
    await saved
  }

  /** Puts a step of a kind in on a way; a mail with a letter of its own to begin with. */
  async function addStep(spot: Spot, kind: Step['kind']) {
    const of = sequence.value!.id
    const step = kind === 'mail' ? await newMail() : fresh[kind]
    if (!step || sequence.value?.id !== of) return
    const id = crypto.randomUUID()
    await setAndChoose(insertStep(sequence.value.map, spot, id, step), id)
  }

  /** Begins from a template: its map takes the place of the one there is, and can be undone. */
  async function beginFrom(template: { key: string } | { kept: number }) {
    const { id, map } = sequence.value!
    const path = `/api/sequences/${id}/template`
    const made = await act<{ map: SequenceMap; missing: string[] }>(path, 'POST', template)
    // What was drawn meanwhile stays.
    if (!made || sequence.value?.id !== id || !isAlike(sequence.value.map, map)) return
    tellMissing(id, made.missing)
    await set({ map: made.map })
  }

  /** What of a sequence that came from a file, or from a template, is not there in this account. */
  const missing = shallowRef<{ of: number; what: string[] } | null>(null)
  function tellMissing(of: number, what: string[]) {
    missing.value = what.length ? { of, what } : null
  }

  /** A step that is picked up with its branch, to be put elsewhere: here it moves, and is copied in another sequence. */
  const held = shallowRef<{ step: Step; branch: Branch; from: number; moves: boolean } | null>(null)
  function pickUp(id: string, moves: boolean) {
    const { id: from, map } = sequence.value!
    const step = map.steps[id]
    if (step) held.value = { step, branch: branchAt(map, id), from, moves }
  }
  /** Puts what is held in on a way. Copied mails have letters of their own, which begin as the others are now. */
  async function putHeld(spot: Spot) {
    const now = held.value
    const of = sequence.value!.id
    if (!now) return
    const { id } = now.branch
    if (now.moves && now.from === of) {
      const moved = moveBranch(sequence.value!.map, id, spot)
      if (moved === sequence.value!.map)
        return useNotices().say('It can’t be put into itself. Choose another place, with +.')
      held.value = null
      return setAndChoose(moved, id)
    }
    const copied = await copyOfBranch(now.branch)
    if (!copied || sequence.value?.id !== of) return
    held.value = null
    await setAndChoose(putBranch(sequence.value.map, spot, copied), copied.id)
  }

  /** A side way comes together with the others at another step; null: at Finish. */
  async function joinWay(id: string, way: number, target: string | null) {
    await set({ map: joinAt(sequence.value!.map, id, way, target) })
  }

  async function removeWay(id: string, way: number) {
    await set({ map: withoutWay(sequence.value!.map, id, way) })
    useNotices().say('The way is removed.', { label: 'Undo', run: undo })
  }

  async function remove(id: string) {
    chosen.value = null
    await set({ map: removeStep(sequence.value!.map, id) })
    useNotices().say('The step is removed.', { label: 'Undo', run: undo })
  }

  /** What was drawn beside it goes; it can be undone. */
  async function discard() {
    const { published } = sequence.value!
    if (!published) return
    chosen.value = null
    await set({ map: published })
    useNotices().say('It is as it runs again.', { label: 'Undo', run: undo })
  }

  async function changeStep(id: string, step: Step) {
    await set({ map: withStep(sequence.value!.map, id, step) })
  }
  const { newMail, copyOfBranch, addVersion, removeVersion } = sequenceMails(
    sequence,
    changeStep,
    undo,
  )

  /** Mends what a mark is about. */
  async function repair(how: Repair) {
    const { map } = sequence.value!
    const mended = repaired(map, how, crypto.randomUUID())
    if (mended === map) return useNotices().say('There is nothing to mend any more.')
    await set({ map: mended })
    useNotices().say('It is mended.', { label: 'Undo', run: undo })
  }

  async function changeStart(start: Start) {
    await set({ map: { ...sequence.value!.map, start } })
  }

  return {
    ...{
      sequence,
      asItRuns,
      narrowed,
      counting,
      keeper,
      waits,
      problem,
      chosen,
      past,
      future,
      line,
      canChange,
      differs,
      held,
    },
    ...{
      open,
      set,
      undo,
      redo,
      beginFrom,
      missing,
      tellMissing,
      pickUp,
      putHeld,
      addStep,
      addVersion,
      removeVersion,
      joinWay,
      removeWay,
      remove,
      changeStep,
      changeStart,
      repair,
      discard,
    },
  }
})
