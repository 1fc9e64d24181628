import type { Letterhead } from '~~/core/letters'
import type { Field } from '~~/core/people'
import type { ReaderLanguage } from '~~/core/readers'
import {
  firstLanguage,
  newPart,
  type FormPart,
  type PartKind,
  type SignUpForm,
  type SignUpMark,
} from '~~/core/sign-ups'

/** What the server says of a sign-up. */
export interface OpenSignUp {
  id: number
  key: string
  name: string
  state: 'draft' | 'live' | 'paused' | 'ended'
  form: SignUpForm
  revision: number
  liveVersion: number | null
  /** Whether that is what is published, as it stood on the server. */
  published: boolean
  /** Where Satchel is reached, and where its hosted page stands. */
  home: string
  address: string
  marks: SignUpMark[]
  /** The form as HTML to paste, without a script. */
  plain: string
  versions: { version: number; at: number; by_name: string | null }[]
  /** Versions that visitors see by lot just now. */
  test: { id: number; versions: number[]; beganAt: number } | null
  lists: { id: number; name: string }[]
  fields: Field[]
  tags: string[]
  /** The promised file; what can be started, with its list; and who can be told. */
  file: { id: number; name: string; weight: number } | null
  sequences: { id: number; name: string; listId: number | null }[]
  team: string[]
  letterhead: Letterhead
  sender: string
  postalAddress: string
}

/** What of a sign-up is changed on its pages. */
export interface SignUpChange {
  name: string
  form: SignUpForm
}

/** What one looks at of a form, in the order in which a visitor meets it. */
export const formStates = [
  { value: 'first', name: 'First look' },
  { value: 'mistakes', name: 'Mistakes' },
  { value: 'thanks', name: 'Thanks' },
  { value: 'confirmed', name: 'Confirmed' },
] as const
export type FormState = (typeof formStates)[number]['value']

const changeOf = ({ name, form }: OpenSignUp): SignUpChange => ({ name, form })

/** A sign-up is kept by this; one for each. */
function signUpKeeper(id: number): Keeper<SignUpChange> {
  const path = `/api/sign-ups/${id}`
  return keeperOf<SignUpChange>(path, () => ({
    of: path,
    names: { name: 'Name', form: 'Its form' },
    async load() {
      const got = await request<OpenSignUp>(path)
      return { value: changeOf(got), version: got.revision }
    },
    async save(value, revision) {
      const body = { ...value, revision }
      const saved = await changeAt<{ revision: number }>(path, { method: 'PUT', body })
      return { value, version: saved.revision }
    },
  }))
}

/** The sign-up that is open: each change is kept at once, and can be undone; what is published stays until it is published anew. */
export const useSignUp = defineStore('sign-up', () => {
  const onServer = shallowRef<OpenSignUp | null>(null)
  const keeper = computed(() => (onServer.value ? signUpKeeper(onServer.value.id) : null))
  /** As the server has it, but for what was changed here and is not saved yet. */
  const signUp = computed<OpenSignUp | null>(() => {
    const here = keeper.value?.shown()
    return onServer.value && here ? { ...onServer.value, ...here } : onServer.value
  })
  const problem = ref('')
  /** The part whose settings are shown. */
  const chosen = ref<string | null>(null)
  const language = ref<ReaderLanguage>('en')
  const shownState = ref<FormState>('first')
  const phone = ref(false)
  const past = shallowRef<SignUpChange[]>([])
  const future = shallowRef<SignUpChange[]>([])
  /** What was changed last: the same again is one step to undo. */
  let lastMark = ''
  /** The sign-up that is to be open: answers about any other come too late. */
  let wanted = 0
  let timer: ReturnType<typeof setTimeout> | undefined

  const form = computed(() => signUp.value?.form ?? null)
  const chosenPart = computed(() => form.value?.parts.find(({ id }) => id === chosen.value) ?? null)
  const canChange = computed(
    () => signUp.value?.state !== 'ended' && useSession().may('PUT /api/sign-ups/[id]'),
  )
  /** What keeps it from being published now, in words; null where nothing does. */
  const waits = computed(() => {
    if (!onServer.value) return 'Asking how it stands…'
    const unsaved = useUnsaved()
    const of = `/api/sign-ups/${onServer.value.id}`
    if (unsaved.problemWith(of)) return unsaved.problemWith(of)
    if (!unsaved.isSettled(of)) return 'Saving what you changed…'
    if (onServer.value.revision !== keeper.value!.state.value.known?.version)
      return 'Asking what it lacks…'
    return problem.value || null
  })
  /** Whether there is nothing to publish: what is drawn is live already. */
  const published = computed(
    () => onServer.value?.published === true && keeper.value?.settled() === true,
  )
  const blockers = computed(
    () => signUp.value?.marks.filter(({ level }) => level === 'blocker') ?? [],
  )

  async function open(id: number) {
    if (wanted !== id) {
      wanted = id
      onServer.value = null
      chosen.value = null
      shownState.value = 'first'
      past.value = []
      future.value = []
      lastMark = ''
    }
    await refresh()
  }

  /** Asks the server how the open sign-up stands. */
  async function refresh() {
    const id = wanted
    if (!id) return
    const kept = signUpKeeper(id)
    const asked = kept.asks()
    try {
      const got = await request<OpenSignUp>(`/api/sign-ups/${id}`)
      if (id !== wanted) return
      kept.hear(asked, { value: changeOf(got), version: got.revision })
      // Asked before a change was kept, and answered after it: what it is said to lack is old.
      if (got.revision < Number(kept.state.value.known?.version ?? 0)) return
      onServer.value = got
      problem.value = ''
      if (!got.form.languages.includes(language.value)) language.value = firstLanguage(got.form)
    } catch (error) {
      if (id === wanted) problem.value = problemOf(error).message
    }
  }

  /** Nothing is asked of it any more: it is about to be deleted. */
  function close() {
    wanted = 0
    onServer.value = null
  }

  const now = (): SignUpChange => changeOf(signUp.value!)

  /** Changes something of it. `mark`: what it is, so that going on with the same is one step to undo. */
  function set(change: Partial<SignUpChange>, mark = crypto.randomUUID() as string) {
    if (!signUp.value || !canChange.value) return
    if (mark !== lastMark) past.value = [...past.value, now()].slice(-200)
    lastMark = mark
    future.value = []
    save({ ...now(), ...change })
  }
  function setForm(change: Partial<SignUpForm>, mark?: string) {
    if (form.value) set({ form: { ...form.value, ...change } }, mark)
  }
  function setPart(id: string, change: object, mark?: string) {
    if (!form.value) return
    const parts = form.value.parts.map((part) =>
      part.id === id ? ({ ...part, ...change } as FormPart) : part,
    )
    setForm({ parts }, mark && `${id} ${mark}`)
  }

  function save(next: SignUpChange) {
    const kept = keeper.value!
    kept.choose(next)
    clearTimeout(timer)
    // What it lacks is asked for once one pauses, not at every key.
    timer = setTimeout(() => void kept.flush().then(refresh), 400)
  }

  function undo() {
    const before = past.value.at(-1)
    if (!before) return
    past.value = past.value.slice(0, -1)
    future.value = [...future.value, now()]
    lastMark = ''
    save(before)
  }
  function redo() {
    const next = future.value.at(-1)
    if (!next) return
    future.value = future.value.slice(0, -1)
    past.value = [...past.value, now()]
    lastMark = ''
    save(next)
  }

  /** Puts a new part behind the chosen one, or above the button. */
  function add(kind: PartKind, change: object = {}) {
    if (!form.value) return
    const part = { ...newPart(kind, crypto.randomUUID().slice(0, 8)), ...change } as FormPart
    const { parts } = form.value
    const chosenAt = parts.findIndex(({ id }) => id === chosen.value)
    const button = parts.findIndex((one) => one.kind === 'button')
    const at = chosenAt >= 0 && chosenAt < button ? chosenAt + 1 : Math.max(button, 0)
    setForm({ parts: [...parts.slice(0, at), part, ...parts.slice(at)] })
    chosen.value = part.id
  }
  function remove(id: string) {
    if (!form.value) return
    setForm({ parts: form.value.parts.filter((part) => part.id !== id) })
    if (chosen.value === id) chosen.value = null
    useNotices().say('The part is removed.', { label: 'Undo', run: undo })
  }
  /** Moves a part up (-1) or down (1) by one place. */
  function move(id: string, by: -1 | 1) {
    if (!form.value) return
    const parts = [...form.value.parts]
    const at = parts.findIndex((part) => part.id === id)
    const to = at + by
    if (at < 0 || to < 0 || to >= parts.length) return
    parts.splice(to, 0, parts.splice(at, 1)[0]!)
    setForm({ parts })
  }

  return {
    ...{ signUp, keeper, form, waits, published, blockers, problem, chosen, chosenPart, canChange },
    ...{ language, shownState, phone, past, future },
    ...{ open, close, refresh, set, setForm, setPart, undo, redo, add, remove, move },
  }
})
