import {
  asksForOrder,
  cellsOf,
  readingFor,
  subscribes,
  type ColumnPlan,
  type ColumnTarget,
  type Field,
  type FieldKind,
  type FileHints,
  type FileUnderstanding,
} from '~~/core/people'
import UnderstandFile from '~/workers/understand-file.worker?worker'
import type {
  PeopleSource,
  UnderstandingAnswer,
  UnderstandingAsked,
} from '~/workers/understand-file.worker'

interface Known {
  fields: Field[]
  lists: { id: number; name: string }[]
}

/** How a file is written, besides its columns. */
export interface ImportWishes {
  listId: number | null
  statement: string
  consented: boolean
  mode: 'both' | 'add' | 'update'
  clearEmpty: boolean
  repeats: 'first' | 'last'
  tag: string
}

interface RememberedMapping {
  plans: ColumnPlan[]
  choices: Pick<ImportWishes, 'mode' | 'clearEmpty'> & Partial<Pick<ImportWishes, 'repeats'>>
  usedAt: number
}

/** An import that was counted, as its page has it: the way back to its columns. */
interface Counted {
  file: string
  file_name: string
  size: number
  encoding: FileHints['encoding']
  delimiter: string
  header_row: number
  plans: ColumnPlan[]
  list_id: number | null
  statement: string
  mode: ImportWishes['mode']
  clear_empty: number
  repeats: ImportWishes['repeats']
  tag: string | null
}

/**
 * A file of people on its way in: how it is understood, what becomes of its columns, and what else is wanted; until it is
 * handed to the server to be counted.
 */
export function usePeopleFile() {
  const { answer: known } = useAnswer<Known>(() => '/api/people/overview', { live: false })
  const { today } = useToday()
  /** What was chosen; a workbook, vCards and pasted people go on as the CSV they were turned into. */
  const source = shallowRef<PeopleSource | null>(null)
  const csv = shallowRef<Blob | null>(null)
  /** The file as the server has it already, where it was counted before. */
  const sent = ref<string | null>(null)
  const name = ref('')
  const hints = ref<FileHints>({})
  const understood = shallowRef<FileUnderstanding | null>(null)
  const plans = ref<ColumnPlan[]>([])
  const remembered = ref<number | null>(null)
  const problem = ref('')
  const reading = ref(false)
  const wishes = ref<ImportWishes>({
    listId: null,
    statement: '',
    consented: false,
    mode: 'both',
    clearEmpty: false,
    repeats: 'last',
    tag: '',
  })

  const kinds = computed(() => {
    const all = new Map<string, FieldKind>(known.value?.fields.map(({ key, kind }) => [key, kind]))
    for (const { target } of plans.value)
      if (target.to === 'new-field') all.set(target.key, target.kind)
    return all
  })
  const kindOf = (key: string) => kinds.value.get(key)

  /** Why it cannot be counted yet, in a sentence; null: it can. */
  const missing = computed(() => {
    if (!understood.value) return 'Choose a file first.'
    if (understood.value.table.row === 0 && hints.value.headerRow === undefined)
      return 'Say whether the file has a header.'
    if (!plans.value.some(({ target }) => target.to === 'address'))
      return 'One column must be the address.'
    const unclear = plans.value.find((plan) => asksForOrder(plan, kindOf))
    if (unclear) return `Say how the dates in ${unclear.header} are read.`
    const { consented, statement, listId } = wishes.value
    if (subscribes(plans.value, listId) && (!consented || statement.trim() === ''))
      return 'Say how these people agreed to be on a list, and tick the box.'
    return null
  })

  function choose(chosen: PeopleSource, called: string) {
    source.value = chosen
    sent.value = null
    name.value = called
    hints.value = {}
    wishes.value.tag = `${called.replace(/\.\w+$/, '')} ${today()}`.slice(0, 60)
    void understand().then(takeAsBefore)
  }

  /** Says something of the file that was not understood rightly: its encoding, its separator, its header. */
  function hint(more: FileHints) {
    hints.value = { ...hints.value, ...more }
    void understand().then(takeAsBefore)
  }

  let newest = 0
  async function understand(): Promise<void> {
    const asked = ++newest
    understood.value = null
    remembered.value = null
    problem.value = ''
    reading.value = true
    // A file may be chosen before it is known which fields and lists there are.
    const has = known.value ?? (await ask<Known>('/api/people/overview'))
    const answer =
      has &&
      (await inWorker({ source: source.value!, hints: { ...hints.value }, known: plain(has) }))
    // Another file may have been chosen meanwhile.
    if (asked !== newest) return
    reading.value = false
    if (!answer) problem.value ||= 'This file could not be read. Choose it again.'
    else if ('message' in answer.found) problem.value = answer.found.message
    else {
      csv.value = answer.csv
      understood.value = answer.found
      plans.value = answer.found.plans
    }
  }

  /** How often a column was chosen differently, so that what comes late does not take a choice away. */
  let chosen = 0
  const waysOf = ({ mode, clearEmpty, repeats }: ImportWishes) =>
    JSON.stringify([mode, clearEmpty, repeats])

  /** Takes the columns as they were taken the last time, where there was a file with just these; what was chosen meanwhile stays. */
  async function takeAsBefore() {
    if (!understood.value || understood.value.table.row === 0) return
    const of = understood.value
    const [had, ways] = [chosen, waysOf(wishes.value)]
    const before = await orNotice(
      question<{ mapping: RememberedMapping | null }>('/api/imports/mapping', {
        header: of.header,
      }),
    )
    if (!before?.mapping || understood.value !== of) return
    if (chosen === had) {
      remembered.value = before.mapping.usedAt
      takePlans(before.mapping.plans)
    }
    if (waysOf(wishes.value) !== ways) return
    const { mode, clearEmpty, repeats } = before.mapping.choices
    Object.assign(wishes.value, { mode, clearEmpty, repeats: repeats ?? 'last' })
  }
  function takePlans(then: readonly ColumnPlan[]) {
    plans.value = understood.value!.plans.map((plan) => {
      const same = then.find(({ column }) => column === plan.column)
      return same ? { ...same, samples: plan.samples } : plan
    })
  }
  function takeAnew() {
    plans.value = understood.value!.plans
    remembered.value = null
  }

  /** Comes back to an import that was counted and not started: its file is on the server. */
  async function comeBack(id: number) {
    const before = await ask<Counted>(`/api/imports/${id}`)
    const head = before && (await orNotice(fetchHead(id)))
    if (!head) return
    source.value = { head, size: before.size }
    sent.value = before.file
    name.value = before.file_name
    hints.value = {
      encoding: before.encoding,
      delimiter: before.delimiter,
      headerRow: before.header_row,
    }
    wishes.value = {
      listId: before.list_id,
      statement: before.statement,
      consented: before.statement !== '',
      mode: before.mode,
      clearEmpty: before.clear_empty === 1,
      repeats: before.repeats,
      tag: before.tag ?? '',
    }
    await understand()
    if (understood.value) takePlans(before.plans)
  }

  /** Another target of a column, with the reading that suits its cells. */
  function retarget(column: number, target: ColumnTarget) {
    chosen++
    const cells = cellsOf(understood.value!.rows, column)
    const kindThere = (key: string) =>
      target.to === 'new-field' && target.key === key ? target.kind : kindOf(key)
    plans.value = plans.value.map((plan) => {
      if (plan.column === column) {
        const { header, samples } = plan
        return { column, header, samples, target, ...readingFor(target, cells, kindThere) }
      }
      // There is one address column: choosing another leaves the first aside.
      return target.to === 'address' && plan.target.to === 'address'
        ? { ...plan, target: { to: 'skip' } }
        : plan
    })
  }
  function change(column: number, more: Partial<ColumnPlan>) {
    chosen++
    plans.value = plans.value.map((plan) => (plan.column === column ? { ...plan, ...more } : plan))
  }

  /** Hands the file over to be counted; the import's id, or null where that failed, which was said. */
  async function count(): Promise<number | null> {
    const of = understood.value!
    const body = csv.value ?? (source.value as File)
    const file =
      sent.value ?? (await act<{ file: string }>('/api/imports/file', 'POST', body))?.file
    if (!file) return null
    const { tag, ...rest } = wishes.value
    const made = await act<{ id: number }>('/api/imports', 'POST', {
      ...rest,
      file,
      name: name.value,
      encoding: of.encoding,
      delimiter: of.delimiter,
      headerRow: of.table.row,
      plans: plans.value,
      tag: tag.trim() || null,
      preview: true,
    })
    return made?.id ?? null
  }

  return {
    known,
    name,
    hints,
    understood,
    plans,
    kinds,
    remembered,
    problem,
    reading,
    wishes,
    missing,
    /** Whether it is read as the file stands, and not turned into CSV before. */
    asItStands: computed(() => csv.value === null),
    choose,
    hint,
    takeAnew,
    comeBack,
    retarget,
    change,
    count,
  }
}

/** What a worker can be handed: without the page's own wrapping. */
const plain = ({ fields, lists }: Known): Known => ({
  fields: fields.map(({ key, name, kind }) => ({ key, name, kind })),
  lists: lists.map(({ id, name }) => ({ id, name })),
})

function inWorker(question: UnderstandingAsked): Promise<UnderstandingAnswer | null> {
  const worker = new UnderstandFile()
  return new Promise<UnderstandingAnswer | null>((done) => {
    worker.onmessage = ({ data }: MessageEvent<UnderstandingAnswer>) => done(data)
    worker.onerror = () => done(null)
    worker.postMessage(question)
  }).finally(() => worker.terminate())
}

/** As bytes, which is what comes of an answer that is neither JSON nor text. */
const fetchHead = (id: number) => request<Blob>(`/api/imports/${id}/head`)
