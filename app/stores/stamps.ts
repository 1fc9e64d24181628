import { isAsStamped, stampContent, stamped, type Row, type StampContent } from '~~/core/letters'
import type { Stamp } from '~~/core/letters'

interface Held {
  content: StampContent
}
interface Followed {
  followed: { id: number; name: string }[]
  version: number
}

/** The stamps of the account, and what one does with them in a letter. */
export const useStamps = defineStore('stamps', () => {
  const stamps = shallowRef<Stamp[]>([])
  const notices = useNotices()

  async function load() {
    const got = await request<Stamp[]>('/api/stamps').catch(() => null)
    if (got) stamps.value = got
  }

  /** The stamp that a row is linked to; undefined where there is none, or none any more. */
  function stampOf(row: Row | null): Stamp | undefined {
    return row?.stamp === undefined ? undefined : stamps.value.find(({ id }) => id === row.stamp)
  }

  /** Keeps a row of the open letter as a stamp, and links it. */
  async function keep(name: string, row: Row): Promise<boolean> {
    const made = await act<{ id: number }>('/api/stamps', 'POST', { name, row })
    if (!made) return false
    await load()
    useMailing().updateRow(row.id, { stamp: made.id })
    notices.say(`Kept as the stamp “${name}”. Insert it in any letter.`)
    return true
  }

  /** A stamp's content is kept by this; one for each: saved as soon as somebody spreads it. */
  function keeperFor(id: number): Keeper<Held> {
    const path = `/api/stamps/${id}`
    return keeperOf<Held>(path, () => ({
      of: path,
      names: { content: 'What it holds' },
      async load() {
        await load()
        const stamp = stamps.value.find((one) => one.id === id)
        if (!stamp) throw new Error('This stamp is not there any more.')
        return { value: { content: stamp.content }, version: stamp.version }
      },
      async save({ content }, version, before) {
        const body = { row: { id: 'row', ...content }, version }
        const done = await changeAt<Followed>(path, { method: 'PUT', body })
        sayFollowed(id, done.followed, before)
        await load()
        return { value: { content }, version: done.version }
      },
    }))
  }

  /** Changes the stamp to what a row holds; the letters that are linked to it follow. */
  async function spread(row: Row) {
    const stamp = stampOf(row)
    if (!stamp) return
    await useMailing().flush()
    const keeper = keeperFor(stamp.id)
    // Over the stamp as it was seen here, so that what somebody else made of it meanwhile is noticed.
    keeper.hear(keeper.asks(), { value: { content: stamp.content }, version: stamp.version })
    keeper.choose({ content: stampContent(row) })
    await keeper.flush()
  }

  function sayFollowed(id: number, letters: Followed['followed'], before: Held) {
    const name = stamps.value.find((one) => one.id === id)?.name ?? 'The stamp'
    notices.say(
      letters.length
        ? `“${name}” is changed. ${several(letters.length, 'letter follows', 'letters follow')}: ${letters.map((one) => one.name).join(', ')}.`
        : `“${name}” is changed. No other letter is waiting with it.`,
      { label: 'Undo', run: () => void putBack(id, before) },
    )
  }

  async function putBack(id: number, before: Held) {
    const keeper = keeperFor(id)
    await keeper.reload()
    keeper.choose(before)
  }

  async function rename(id: number, name: string) {
    await act(`/api/stamps/${id}`, 'PUT', { name })
    await load()
  }

  async function remove({ id, name }: Stamp) {
    if (!(await act(`/api/stamps/${id}`, 'DELETE'))) return
    await load()
    notices.say(`The stamp “${name}” is gone. Letters keep what stands in them.`, {
      label: 'Undo',
      run: () => void act(`/api/stamps/${id}/restore`, 'POST').then(load),
    })
  }

  return {
    stamps,
    load,
    stampOf,
    /** Whether a linked row was changed in its letter and not in the stamp yet. */
    differs: (row: Row) => {
      const stamp = stampOf(row)
      return stamp !== undefined && !isAsStamped(row, stamp.content)
    },
    keep,
    keeperFor,
    spread,
    takeBack(row: Row) {
      const stamp = stampOf(row)
      if (stamp) useMailing().replaceRow(stamped(row, stamp.content))
    },
    detach: (row: Row) => useMailing().updateRow(row.id, { stamp: undefined }),
    rename,
    remove,
  }
})
