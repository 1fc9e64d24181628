/** Something done with people: a tag, a list, suppressed, let into a sequence, or the opposite. */
export interface PeopleAct {
  act: 'tag' | 'untag' | 'list' | 'unlist' | 'set-aside' | 'take-back' | 'let-in' | 'let-out'
  tag?: string
  listId?: number
  sequenceId?: number
  reason?: string
}

const opposites: Partial<Record<PeopleAct['act'], PeopleAct['act']>> = {
  tag: 'untag',
  untag: 'tag',
  list: 'unlist',
  'set-aside': 'take-back',
  'let-in': 'let-out',
}

/** So many people are sent in one request: the server does each request whole or not at all. */
const BATCH = 2_000

/**
 * Does something with people, however many, batch by batch, with the opposite as its undo. It can be
 * stopped between two batches; what was done stays, and can be undone.
 */
export function usePeopleActs(changed: () => void) {
  const underway = ref(false)
  const done = ref(0)
  const of = ref(0)
  let stopped = false

  /** `words` say what became of them: "tagged club". */
  async function actOn(ids: readonly number[], body: PeopleAct, words: string) {
    const { touched, whole } = await send(ids, body)
    if (whole || touched.length) changed()
    if (!whole && !touched.length) return
    const others = touched.length < done.value ? '; for the others nothing changed' : ''
    const rest = whole ? '' : ` ${people(ids.length - done.value)} were left as they are.`
    const back = opposites[body.act]
    const undo = back && {
      label: 'Undo',
      run: () =>
        void send(touched, {
          ...body,
          act: back,
          ...(body.reason ? { reason: 'undone' } : {}),
        }).then(changed),
    }
    useNotices().say(
      `${people(touched.length)} ${words}${others}.${rest}`,
      touched.length ? undo : undefined,
    )
  }

  /** Those for whom it changed something, and whether all were done. */
  async function send(ids: readonly number[], body: PeopleAct) {
    const touched: number[] = []
    stopped = false
    done.value = 0
    of.value = ids.length
    underway.value = ids.length > BATCH
    while (done.value < ids.length && !stopped) {
      const batch = ids.slice(done.value, done.value + BATCH)
      const answer = await act<{ changed: number[] }>('/api/people/act', 'POST', {
        ids: batch,
        ...body,
      })
      if (!answer) break
      touched.push(...answer.changed)
      done.value += batch.length
    }
    underway.value = false
    return { touched, whole: done.value === ids.length }
  }

  return { act: actOn, underway, done, of, stop: () => void (stopped = true) }
}
