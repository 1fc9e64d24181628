import { isAsStamped, stamped, type Row } from '~~/core/letters'
import type { Stamp } from '~~/server/utils/stamp'

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
    const made = await ask<{ id: number }>('/api/stamps', { method: 'POST', body: { name, row } })
    if (!made) return false
    await load()
    useMailing().updateRow(row.id, { stamp: made.id })
    notices.say(`Kept as the stamp “${name}”. Insert it in any letter.`)
    return true
  }

  /** Changes the stamp to what a row holds; the letters that are linked to it follow. */
  async function spread(row: Row) {
    const stamp = stampOf(row)
    if (!stamp) return
    await useMailing().flush()
    const done = await ask<{ followed: { id: number; name: string }[] }>(
      `/api/stamps/${stamp.id}`,
      { method: 'PUT', body: { row, version: stamp.version } },
    )
    await load()
    if (done)
      notices.say(
        done.followed.length
          ? `“${stamp.name}” is changed. ${several(done.followed.length, 'letter follows', 'letters follow')}: ${done.followed.map(({ name }) => name).join(', ')}.`
          : `“${stamp.name}” is changed. No other letter is waiting with it.`,
        {
          label: 'Undo',
          run: () => void putBack(stamp),
        },
      )
  }

  async function putBack({ id, content }: Stamp) {
    const version = stamps.value.find((stamp) => stamp.id === id)?.version
    await ask(`/api/stamps/${id}`, {
      method: 'PUT',
      body: { row: { id: 'row', ...content }, version },
    })
    await load()
  }

  async function rename(id: number, name: string) {
    await ask(`/api/stamps/${id}`, { method: 'PUT', body: { name } })
    await load()
  }

  async function remove({ id, name }: Stamp) {
    if (!(await ask(`/api/stamps/${id}`, { method: 'DELETE' }))) return
    await load()
    notices.say(`The stamp “${name}” is gone. Letters keep what stands in them.`, {
      label: 'Undo',
      run: () => void ask(`/api/stamps/${id}/restore`, { method: 'POST' }).then(load),
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
