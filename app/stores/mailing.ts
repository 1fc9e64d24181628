import type { Editor } from '@tiptap/vue-3'
import type { Field } from '~~/core/people'
import type {
  BlockChange,
  BlockKind,
  Letter,
  Letterhead,
  LetterDocument,
  Place,
  Row,
  StampContent,
} from '~~/core/letters'
import {
  defaultLetterhead,
  duplicateBlock,
  duplicateRow,
  blocksOf,
  findBlock,
  insertBlock,
  joinLetters,
  insertRow,
  isSame,
  moveBlock,
  moveRow,
  moveRows,
  newBlock,
  removeBlock,
  rowOfBlock,
  setColumns,
  setShares,
  stampRow,
  updateBlock,
  updateRow,
} from '~~/core/letters'
import type { WaterfallStep } from '~~/core/delivery'
import type { Mark } from '~~/core/proof'
import type { Comment } from '~~/server/utils/comment'
import type { Renditions } from '~~/server/asker/questions'

export interface OpenMailing {
  id: number
  name: string
  state: 'draft' | 'scheduled' | 'sending' | 'sent' | 'held'
  list_id: number | null
  list: string | null
  lists: { id: number; name: string; subscribers: number }[]
  fields: Field[]
  joinedWithinDays: number | null
  segmentId: number | null
  segments: { id: number; name: string }[]
  waterfall: WaterfallStep[] | null
  letter: Letter & { version: number }
  /** The letterhead that the letter is in; null: the account's own. */
  letterheadId: number | null
  letterhead: Letterhead
  scheduled_at: number | null
  started_at: number | null
  finished_at: number | null
  held_by: 'hand' | 'proof' | null
  held_note: string | null
  waiting_note: string | null
  totals: Record<
    | 'planned'
    | 'queued'
    | 'claimed'
    | 'deferred'
    | 'uncertain'
    | 'accepted'
    | 'failed'
    | 'dropped'
    | 'bounced'
    | 'complained'
    | 'opened'
    | 'clicked',
    number
  > | null
  pace: number | null
  /** Who the letter comes from, as readers see it. */
  sender: string
}

/** The mailing that is open: what the server says of it, and its letter as it is being written. */
export const useMailing = defineStore('mailing', () => {
  const mailing = shallowRef<OpenMailing | null>(null)
  const problem = ref('')
  const letter = shallowRef<Letter | null>(null)
  const marks = shallowRef<Mark[] | null>(null)
  /** The versions that go out, of the letter as it was saved last. */
  const going = shallowRef<Renditions | null>(null)
  const comments = shallowRef<Comment[]>([])
  const chosen = ref<string | null>(null)
  /** Blocks chosen besides, by Shift or Ctrl. */
  const also = ref<string[]>([])
  /** The block that was inserted last, until somebody may write in it. */
  const inserted = ref<string | null>(null)
  /** Whether proposals to say things otherwise are shown. */
  const tightening = ref(false)
  /** The editor of the chosen block's text, for its tools. */
  const editor = shallowRef<Editor | null>(null)
  const saving = ref<'saved' | 'waiting' | 'saving' | 'failed'>('saved')
  const past = shallowRef<Letter[]>([])
  const future = shallowRef<Letter[]>([])
  /** The letter as the server has it, as far as known here, and its version. */
  let onFile: Letter | null = null
  let version = 0
  let lastKind = ''
  let lastAt = 0
  let timer: ReturnType<typeof setTimeout> | undefined
  /** The saving under way: two at once would each think the other somebody else's change. */
  let underway: Promise<void> | null = null
  let ids = 0

  const blockers = computed(
    () => marks.value?.filter((mark) => mark.level === 'blocker').length ?? 0,
  )
  const eligible = computed(() => mailing.value?.waterfall?.at(-1)?.left ?? 0)
  const canChange = computed(() => mailing.value !== null && mailing.value.started_at === null)
  const chosenBlock = computed(() =>
    letter.value && chosen.value ? (findBlock(letter.value.document, chosen.value) ?? null) : null,
  )

  const chosenRow = computed(() =>
    letter.value && chosen.value ? (rowOfBlock(letter.value.document, chosen.value) ?? null) : null,
  )

  async function open(id: number) {
    if (mailing.value?.id !== id) {
      await flush()
      mailing.value = null
      letter.value = null
      onFile = null
      version = 0
      saving.value = 'saved'
      marks.value = null
      going.value = null
      comments.value = []
      chosen.value = null
      past.value = []
      future.value = []
    }
    await refresh(id)
  }

  /** Asks the server how the mailing stands. What somebody else changed in its letter is joined with what was changed here. */
  async function refresh(id = mailing.value?.id) {
    if (id === undefined) return
    try {
      const got = await request<OpenMailing>(`/api/mailings/${id}`)
      if (mailing.value && mailing.value.id !== id) return
      mailing.value = got
      problem.value = ''
      takeOver(got.letter)
      void askComments()
      await proof()
    } catch (error) {
      problem.value = problemOf(error).message
    }
  }

  function takeOver({ version: theirVersion, ...theirs }: Letter & { version: number }) {
    if (letter.value !== null && theirVersion <= version) return
    const base = onFile
    onFile = theirs
    version = theirVersion
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

  async function askComments() {
    const id = mailing.value?.id
    if (id === undefined) return
    const got = await request<Comment[]>(`/api/mailings/${id}/comments`).catch(() => null)
    if (got && mailing.value?.id === id) comments.value = got
  }

  async function proof() {
    const id = mailing.value?.id
    if (id === undefined) return
    const got = await request<{ marks: Mark[] }>(`/api/mailings/${id}/proof`).catch(() => null)
    if (got && mailing.value?.id === id) marks.value = got.marks
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
    future.value = []
    letter.value = next
    saveSoon()
  }
  const changeDocument = (document: LetterDocument, kind: string) =>
    letter.value &&
    document !== letter.value.document &&
    change({ ...letter.value, document }, kind)

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
    return (underway ??= saveLetter().finally(() => (underway = null)))
  }

  async function saveLetter() {
    const id = mailing.value?.id
    if (id === undefined || !letter.value) return
    const sent = letter.value
    saving.value = 'saving'
    try {
      const answer = await request<{ version: number }>(`/api/mailings/${id}/letter`, {
        method: 'PUT',
        body: { ...sent, version },
      })
      if (answer.version > version) {
        onFile = sent
        version = answer.version
      }
      saving.value = 'saved'
      if (!isSame(letter.value, sent)) saveSoon()
      else await proof()
    } catch (error) {
      // Somebody else was faster: theirs and mine are joined, and saved together.
      if ((error as { statusCode?: number }).statusCode === 409 && mailing.value?.id === id) {
        const saw = version
        await refresh()
        if (version > saw) return saveSoon()
      }
      saving.value = 'failed'
      useNotices().refuse(`The letter is not saved. ${problemOf(error).message}`)
    }
  }

  async function flush() {
    await underway
    clearTimeout(timer)
    if (saving.value === 'waiting') await save()
  }

  /** Changes the mailing itself: name or audience. */
  async function set(body: {
    name?: string
    listId?: number | null
    joinedWithinDays?: number | null
    segmentId?: number | null
    letterheadId?: number | null
  }) {
    if (!mailing.value) return
    await ask(`/api/mailings/${mailing.value.id}`, { method: 'PUT', body })
    await refresh()
  }

  watch(chosen, () => (also.value = []), { flush: 'sync' })

  /** Chooses a block: alone, besides those chosen, or with all between. */
  function choose(id: string, how: 'alone' | 'besides' | 'between' = 'alone') {
    const first = chosen.value
    if (how === 'alone' || !first || !letter.value) {
      // What is chosen together stays so while one goes on with it.
      if (first === id && how === 'alone' && !also.value.length) return
      chosen.value = id
      also.value = []
    } else if (how === 'between') {
      const ids = blocksOf(letter.value.document).map((block) => block.id)
      const [from, to] = [ids.indexOf(first), ids.indexOf(id)].sort((a, b) => a - b)
      also.value = ids.slice(from, to! + 1).filter((one) => one !== first)
    } else if (id !== first)
      also.value = also.value.includes(id)
        ? also.value.filter((one) => one !== id)
        : [...also.value, id]
  }

  function newId() {
    return `n${Date.now().toString(36)}${(ids++).toString(36)}`
  }

  return {
    mailing,
    problem,
    letter,
    marks,
    going,
    comments,
    askComments,
    editor,
    tightening,
    chosen,
    also,
    all: computed(() => (chosen.value ? [chosen.value, ...also.value] : [])),
    choose,
    inserted,
    chosenBlock,
    chosenRow,
    saving,
    past,
    future,
    blockers,
    eligible,
    look,
    canChange,
    open,
    refresh,
    proof,
    flush,
    set,
    change,
    setSubject: (subject: string) =>
      letter.value && change({ ...letter.value, subject }, 'subject'),
    setPreviewText: (previewText: string) =>
      letter.value && change({ ...letter.value, previewText }, 'preview'),
    update: (id: string, to: BlockChange) =>
      letter.value &&
      changeDocument(
        updateBlock(letter.value.document, id, to),
        `block ${id} ${Object.keys(to).join()}`,
      ),
    updateRow: (id: string, to: Parameters<typeof updateRow>[2]) =>
      letter.value &&
      changeDocument(
        updateRow(letter.value.document, id, to),
        `row ${id} ${Object.keys(to).join()}`,
      ),
    setStyle: (style: LetterDocument['style']) => {
      if (!letter.value) return
      const { style: _before, ...document } = letter.value.document
      changeDocument(style ? { ...document, style } : document, 'style')
    },
    setColumns: (id: string, many: number) =>
      letter.value && changeDocument(setColumns(letter.value.document, id, many), `columns ${id}`),
    setShares: (id: string, shares: readonly number[]) =>
      letter.value && changeDocument(setShares(letter.value.document, id, shares), `shares ${id}`),
    /** Takes rows over in another order, or with blocks moved between them. */
    setRows: (rows: Row[]) =>
      letter.value &&
      changeDocument(
        {
          ...letter.value.document,
          rows: rows.filter(({ columns }) => columns.some(({ blocks }) => blocks.length)),
        },
        `rows ${Date.now()}`,
      ),
    /** A row linked to a stamp. */
    insertStamp(at: number, stamp: { id: number; content: StampContent }) {
      if (!letter.value) return
      const row = stampRow(newId(), stamp.id, stamp.content)
      const { document } = letter.value
      const rows = [...document.rows.slice(0, at), row, ...document.rows.slice(at)]
      changeDocument({ ...document, rows }, `insert ${row.id}`)
      chosen.value = row.columns.flatMap(({ blocks }) => blocks)[0]?.id ?? null
    },
    /** A row put in the place of the one with its id. */
    replaceRow(row: Row) {
      if (!letter.value) return
      const { document } = letter.value
      const rows = document.rows.map((one) => (one.id === row.id ? row : one))
      changeDocument({ ...document, rows }, `row ${row.id} ${Date.now()}`)
    },
    /** A new block in a row of its own, or in a column. */
    insert(place: number | Place, kind: BlockKind) {
      if (!letter.value) return
      const block = newBlock(kind, newId())
      const { document } = letter.value
      changeDocument(
        typeof place === 'number'
          ? insertRow(document, place, block)
          : insertBlock(document, place, block),
        `insert ${block.id}`,
      )
      chosen.value = block.id
      inserted.value = block.id
    },
    moveTo: (id: string, place: Place) =>
      letter.value &&
      changeDocument(moveBlock(letter.value.document, id, place), `move ${Date.now()}`),
    copyBlock: (id: string) =>
      letter.value &&
      changeDocument(duplicateBlock(letter.value.document, id, newId), `copy ${Date.now()}`),
    remove(...ids: string[]) {
      if (letter.value)
        changeDocument(ids.reduce(removeBlock, letter.value.document), `remove ${ids.join()}`)
      chosen.value = null
      also.value = []
    },
    /** Every row of which a block is chosen, by one up or down; they stay together. */
    moveChosen(by: 1 | -1) {
      if (!letter.value || !chosen.value) return
      const ids = [chosen.value, ...also.value]
      changeDocument(moveRows(letter.value.document, ids, by), `move ${Date.now()}`)
    },
    move: (from: number, to: number) =>
      letter.value &&
      changeDocument(moveRow(letter.value.document, from, to), `move ${Date.now()}`),
    duplicate: (index: number) =>
      letter.value &&
      changeDocument(duplicateRow(letter.value.document, index, newId), `duplicate ${Date.now()}`),
    newId,
    undo: () => step(past, future),
    redo: () => step(future, past),
  }
})
