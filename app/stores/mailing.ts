import type { Editor } from '@tiptap/vue-3'
import { isAlike } from '~~/core/choices'
import { defaultLetterhead, isSame, joinLetters, type Letter } from '~~/core/letters'
import type { Mark } from '~~/core/proof'
import type { Comment } from '~~/core/letters'
import type { Renditions } from '~~/core/letters'
import { settingsOf, type MailingSettings, type OpenMailing, type Proof } from './open-mailing'

/** The mailing that is open: what the server says of it, and its letter as it is being written. */
export const useMailing = defineStore('mailing', () => {
  const onServer = shallowRef<OpenMailing | null>(null)
  /** Its name, audience and letterhead, as they are chosen here. */
  const settings = computed(() => (onServer.value ? settingsKeeper(onServer.value.id) : null))
  /**
   * The mailing as the server has it, with what was chosen here: also while the server has taken that and nobody has read
   * the mailing anew yet.
   */
  const mailing = computed<OpenMailing | null>(() => {
    const here = settings.value?.shown()
    if (!onServer.value || !here) return onServer.value
    const { listId, ...rest } = here
    const list = onServer.value.lists.find(({ id }) => id === listId)?.name ?? null
    return { ...onServer.value, ...rest, list_id: listId, list }
  })
  const problem = ref('')
  const letter = shallowRef<Letter | null>(null)
  /** What the proof found when it answered last; null while it has not answered. See {@link proofState}. */
  const marks = shallowRef<Mark[] | null>(null)
  const checking = ref(false)
  const proofProblem = ref<string | null>(null)
  let proofs = 0
  /** Of which letter and settings the proof has answered. */
  const provedOf = ref('')
  const proofMark = () => `${version.value} ${onServer.value?.settingsVersion ?? ''}`
  /** What goes out, with what it weighs. */
  const weighed = shallowRef<Omit<Proof, 'marks'> | null>(null)
  /** The versions that go out, of the letter as it was saved last. */
  const going = shallowRef<Renditions | null>(null)
  const comments = shallowRef<Comment[]>([])
  const choice = useChoice(letter)
  const { chosen, also } = choice
  /** The block that was inserted last, until somebody may write in it. */
  const inserted = ref<string | null>(null)
  /** Counts how often a link was asked for from within a text. */
  const linkAsked = ref(0)
  /** Whether proposals to say things otherwise are shown. */
  const tightening = ref(false)
  /** The editor of the chosen block's text, for its tools. */
  const editor = shallowRef<Editor | null>(null)
  const saving = ref<'saved' | 'waiting' | 'saving' | 'failed'>('saved')
  const past = shallowRef<Letter[]>([])
  const future = shallowRef<Letter[]>([])
  /** The mailing that is to be open: answers about any other come too late. */
  let wanted: number | null = null
  /** The letter as the server has it, as far as known here, and its version. */
  let onFile: Letter | null = null
  const version = ref(0)
  let lastKind = ''
  let lastAt = 0
  let timer: ReturnType<typeof setTimeout> | undefined
  /** The saving under way: two at once would each think the other somebody else's change. */
  let underway: Promise<void> | null = null
  const left = reactive(
    new Map<number, { letter: Letter; onFile: Letter | null; version: number }>(),
  ) as Map<number, { letter: Letter; onFile: Letter | null; version: number }>
  const watched = new Set<number>()
  /** The letter that goes over in it. */
  let sending: Letter | null = null

  const blockers = computed(
    () => marks.value?.filter((mark) => mark.level === 'blocker').length ?? 0,
  )
  /** What the proof says of what stands here now: unknown while it has not answered since the last change. */
  const proofState = computed<'unknown' | 'holds' | 'free'>(() => {
    if (marks.value === null || proofProblem.value || saving.value !== 'saved') return 'unknown'
    if (provedOf.value !== proofMark()) return 'unknown'
    return blockers.value ? 'holds' : 'free'
  })
  const eligible = computed(() => mailing.value?.waterfall?.at(-1)?.left ?? 0)
  const subject = computed(() => letter.value?.subject ?? '')
  const isOpen = computed(() => mailing.value !== null && letter.value !== null)
  const session = useSession()
  const canChange = computed(
    () =>
      mailing.value !== null &&
      mailing.value.started_at === null &&
      session.may('PUT /api/mailings/[id]/letter'),
  )

  async function open(id: number) {
    wanted = id
    if (mailing.value?.id !== id) {
      await flush()
      if (wanted !== id) return
      leaveUnsaved()
      onServer.value = null
      letter.value = null
      onFile = null
      version.value = 0
      saving.value = 'saved'
      takeUpUnsaved(id)
      watchLetter(id)
      marks.value = null
      proofProblem.value = null
      checking.value = false
      weighed.value = null
      going.value = null
      comments.value = []
      chosen.value = null
      past.value = []
      future.value = []
    }
    await refresh()
  }

  /** What of a letter could not be saved when another was opened: it is there again when its mailing is. */
  function leaveUnsaved() {
    const id = mailing.value?.id
    if (id === undefined || !letter.value || saving.value === 'saved') return
    left.set(id, { letter: letter.value, onFile, version: version.value })
  }
  function takeUpUnsaved(id: number) {
    const before = left.get(id)
    left.delete(id)
    if (!before) return
    letter.value = before.letter
    onFile = before.onFile
    version.value = before.version
    // The server is asked first how its letter stands by now.
    void refresh().then(() => wanted === id && saveSoon())
  }

  /** Nothing of a mailing goes out while its letter is unsaved. */
  function watchLetter(id: number) {
    if (watched.has(id)) return
    watched.add(id)
    const isHere = () => mailing.value?.id === id
    useUnsaved().watchOver(`/api/mailings/${id}`, {
      settled: () => !left.has(id) && (!isHere() || saving.value === 'saved'),
      flush: () => (isHere() ? flush() : Promise.resolve()),
      problem: () =>
        left.has(id) || (isHere() && saving.value === 'failed') ? 'The letter is not saved.' : null,
    })
  }

  /** Asks the server how the mailing stands. What somebody else changed in its letter is joined with what was changed here. */
  async function refresh() {
    const id = wanted
    // While another one is still to be saved, its letter is not the wanted one's.
    const late = () => id !== wanted || (mailing.value !== null && mailing.value.id !== id)
    if (id === null || late()) return
    try {
      const keeper = settingsKeeper(id)
      const asked = keeper.asks()
      const got = await request<OpenMailing>(`/api/mailings/${id}`)
      if (late()) return
      onServer.value = got
      keeper.hear(asked, { value: settingsOf(got), version: got.settingsVersion })
      problem.value = ''
      takeOver(got.letter)
      void askComments()
      void proof()
    } catch (error) {
      if (id === wanted) problem.value = problemOf(error).message
    }
  }

  function takeOver({ version: theirVersion, ...theirs }: Letter & { version: number }) {
    if (letter.value !== null && theirVersion <= version.value) return
    const base = onFile && begunFrom(onFile, theirs)
    onFile = theirs
    version.value = theirVersion
    if (letter.value === null || base === null || letter.value === base) {
      if (base !== null) rebase(base, theirs)
      letter.value = theirs
      return
    }
    const { letter: joined, contested } = joinLetters(base, letter.value, theirs)
    if (contested.length)
      useNotices().say(
        'Somebody else changed the same words just now. Yours stand; theirs are in the history.',
      )
    rebase(base, theirs)
    letter.value = isSame(joined, theirs) ? theirs : joined
    if (letter.value !== theirs) saveSoon()
  }

  /**
   * What somebody else's letter was begun from, as far as I know it: where it holds what I have just sent, though no
   * answer has come yet, that is what I sent.
   */
  function begunFrom(known: Letter, theirs: Letter): Letter {
    if (!sending) return known
    return isSame(joinLetters(known, sending, theirs).letter, theirs) ? sending : known
  }

  /** What others changed meanwhile is no step of mine, so it stays when mine are undone. */
  function rebase(base: Letter, theirs: Letter) {
    const joined = (step: Letter) => joinLetters(base, step, theirs).letter
    past.value = past.value.map(joined)
    future.value = future.value.map(joined)
  }

  /** How the open letter looks where it says nothing itself. */
  const look = computed(
    () => mailing.value?.letterhead ?? useSession().account?.letterhead ?? defaultLetterhead,
  )

  /** What the letter says of its look; apart, so that nothing that hangs on it alone is drawn again as one writes. */
  const letterStyle = computed(() => letter.value?.document.style)

  async function askComments() {
    const id = mailing.value?.id
    if (id === undefined) return
    const got = await request<Comment[]>(`/api/mailings/${id}/comments`).catch(() => null)
    if (got && mailing.value?.id === id) comments.value = got
  }

  /** Asks the proof what it finds. An answer from before the last question says nothing about what stands here now. */
  async function proof() {
    const id = mailing.value?.id
    if (id === undefined) return
    const mine = ++proofs
    const of = proofMark()
    checking.value = true
    try {
      const got = await request<Proof>(`/api/mailings/${id}/proof`)
      if (mine !== proofs || mailing.value?.id !== id) return
      marks.value = got.marks
      weighed.value = got
      provedOf.value = of
      proofProblem.value = null
    } catch (error) {
      if (mine === proofs) proofProblem.value = problemOf(error).message
    }
    if (mine === proofs) checking.value = false
    await askRenditions(id)
  }

  async function askRenditions(id: number) {
    const parts = letter.value?.document.rows.flatMap((row) => [
      row,
      ...row.columns.flatMap(({ blocks }) => blocks),
    ])
    if (!parts?.some(({ shownTo }) => shownTo)) {
      going.value = null
      return
    }
    const got = await request<Renditions>(`/api/mailings/${id}/renditions`).catch(() => null)
    if (got && mailing.value?.id === id) going.value = got
  }

  /** Takes a change over. Changes of one kind in quick succession are one step of undo. */
  function change(next: Letter, kind: string) {
    if (!letter.value || !canChange.value || next === letter.value) return
    const together = kind === lastKind && Date.now() - lastAt < 1_500 && past.value.length > 0
    if (!together) past.value = [...past.value.slice(-199), letter.value]
    lastKind = kind
    lastAt = Date.now()
    if (future.value.length) future.value = []
    letter.value = next
    saveSoon()
  }

  function step(from: typeof past, to: typeof future) {
    const other = from.value.at(-1)
    if (!other || !letter.value) return
    to.value = [...to.value, letter.value]
    from.value = from.value.slice(0, -1)
    letter.value = other
    lastKind = ''
    saveSoon()
  }

  function saveSoon() {
    saving.value = 'waiting'
    clearTimeout(timer)
    timer = setTimeout(() => void save(), 500)
  }

  function save(): Promise<void> {
    return (underway ??= saveLetter().finally(() => (underway = sending = null)))
  }

  async function saveLetter() {
    const id = mailing.value?.id
    if (id === undefined || !letter.value) return
    const sent = (sending = letter.value)
    const over = version.value
    saving.value = 'saving'
    try {
      const answer = await changeAt<{ version: number }>(`/api/mailings/${id}/letter`, {
        method: 'PUT',
        body: { ...sent, version: over },
      })
      sending = null
      if (answer.version > version.value) {
        onFile = sent
        version.value = answer.version
      }
      saving.value = 'saved'
      // Not waited for: what is written meanwhile is to be saved in its own time.
      if (!isSame(letter.value, sent)) saveSoon()
      else void proof()
    } catch (error) {
      sending = null
      // Somebody else was faster: theirs and mine are joined, and saved together.
      if ((error as { statusCode?: number }).statusCode === 412 && mailing.value?.id === id) {
        // Theirs may be here already: they came while mine was on its way.
        if (version.value === over) await refresh()
        if (version.value > over) return saveSoon()
      }
      // What was refused stands here no more: what does is to be saved, and was not while this was under way.
      if (mailing.value?.id === id && !isSame(letter.value, sent)) return saveSoon()
      saving.value = 'failed'
      const { statusCode } = error as { statusCode?: number }
      if (statusCode === undefined || statusCode >= 500)
        timer = setTimeout(() => void save(), 5_000)
      useNotices().refuse(`The letter is not saved. ${problemOf(error).message}`)
    }
  }

  async function flush() {
    await underway
    clearTimeout(timer)
    if (saving.value === 'waiting' || saving.value === 'failed') await save()
  }

  /**
   * The page goes away: what is not on its way yet goes now, and the browser brings it over alone (up to 64 kB, as
   * Fetch has it for `keepalive`). A saving that is under way comes before it.
   */
  function leave() {
    if (saving.value !== 'waiting' || !letter.value) return
    clearTimeout(timer)
    void changeAt(`/api/mailings/${mailing.value!.id}/letter`, {
      method: 'PUT',
      body: { ...letter.value, version: version.value + (sending ? 1 : 0) },
      keepalive: true,
    })
      .catch(() => null)
      // Only a page that the browser kept comes here, and it goes on as ever.
      .finally(saveSoon)
  }

  /** Changes the mailing itself: name or audience. */
  async function set(change: Partial<MailingSettings>) {
    const keeper = settings.value
    const now = keeper?.shown()
    if (!keeper || !now) return
    // Whoever asks for segments does not ask by when people joined, nor both at once.
    const audience =
      change.joinedWithinDays != null
        ? { segmentIds: [] }
        : change.segmentIds
          ? { joinedWithinDays: null }
          : {}
    keeper.choose({ ...now, ...audience, ...change })
    await keeper.flush()
    await refresh()
  }

  return {
    mailing,
    settings,
    problem,
    letter,
    marks,
    checking,
    proofProblem,
    proofState,
    weighed,
    going,
    comments,
    askComments,
    editor,
    tightening,
    ...choice,
    inserted,
    linkAsked,
    saving,
    past,
    future,
    blockers,
    eligible,
    subject,
    isOpen,
    look,
    letterStyle,
    canChange,
    open,
    refresh,
    proof,
    flush,
    leave,
    set,
    change,
    ...letterActs({ letter, chosen, also, inserted }, change),
    undo: () => step(past, future),
    redo: () => step(future, past),
  }
})

/** What of a mailing is chosen besides its letter and how it goes out is kept by this; only what is changed goes over. */
function settingsKeeper(id: number): Keeper<MailingSettings> {
  const path = `/api/mailings/${id}`
  const read = async () => {
    const got = await request<OpenMailing>(path)
    return { value: settingsOf(got), version: got.settingsVersion }
  }
  return keeperOf<MailingSettings>(`${path} settings`, () => ({
    of: path,
    names: {
      name: 'Name',
      listId: 'List',
      joinedWithinDays: 'Joined in the last days',
      segmentIds: 'Segments',
      leftOutIds: 'Excluded segments',
      pastCap: 'Past the frequency cap',
      letterheadId: 'Letterhead',
    },
    load: read,
    async save(value, version, before) {
      const changed = Object.entries(value).filter(
        ([key, now]) => !isAlike(now, before[key as keyof MailingSettings]),
      )
      const body = { ...Object.fromEntries(changed), version }
      const saved = await changeAt<{ version: string }>(path, { method: 'PUT', body })
      return { value, version: saved.version }
    },
  }))
}
