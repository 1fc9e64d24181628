import type { Asked } from '~~/core/choices'

/** How the rows of a table are kept that several people may change. */
interface KeptRows<R, T> {
  /** Where all of them are read; each has its own path under it. */
  path: string
  /** The last part of a row's path. */
  key: (row: R) => string | number
  /** What one changes of a row. */
  value: (row: R) => T
  /** As the server takes it; as it is where nothing is given. */
  body?: (value: T) => object
  names: Record<keyof T & string, string>
}

/** A table whose rows are kept one by one, each saved as soon as something of it is chosen. */
export function useKeptRows<R extends { version: string }, T extends object>({
  path,
  key,
  value,
  body,
  names,
}: KeptRows<R, T>) {
  const pathOf = (row: R) => `${path}/${key(row)}`
  const { answer, problem, reload } = useAnswer<R[], Map<string, Asked>>(() => path, {
    before: () => asksOfAll(`${path}/`),
    after(got, before) {
      for (const row of got) {
        const keeper = keeperFor(row)
        keeper.hear(before.get(pathOf(row)) ?? keeper.asks(), versioned(row))
      }
    },
  })
  const versioned = (row: R) => ({ value: value(row), version: row.version })

  function keeperFor(row: R): Keeper<T> {
    const at = pathOf(row)
    return keeperOf<T>(at, () => ({
      of: at,
      names,
      async load() {
        const now = (await request<R[]>(path)).find((one) => pathOf(one) === at)
        if (!now) throw new Error('This is not there any more.')
        return versioned(now)
      },
      async save(next, version) {
        const sent = { ...(body ? body(next) : next), version }
        const done = await changeAt<{ version: string }>(at, { method: 'PUT', body: sent })
        return { value: next, version: done.version }
      },
    }))
  }

  /** Chooses something of a row; whether the server has taken it. */
  async function change(row: R, next: Partial<T>): Promise<boolean> {
    const keeper = keeperFor(row)
    keeper.choose({ ...(keeper.shown() ?? value(row)), ...next })
    await keeper.flush()
    await reload()
    return keeper.settled()
  }

  /** The rows as they stand here. */
  const rows = computed(
    () => answer.value?.map((row): R => ({ ...row, ...keeperFor(row).shown() })) ?? null,
  )
  return { rows, problem, reload, keeperFor, change }
}
