import { groupByLabel, labelled, labelledKinds, type Labelled } from '~~/core/labels'

export interface Label {
  id: number
  name: string
  version: string
  /** What it is on, by id. */
  on: Record<Labelled, number[]>
}

/** All labels, and which of them something has. */
export function useLabels() {
  const { answer: labels, problem, reload } = useAnswer<Label[]>(() => '/api/labels')
  const byItem = computed(() => {
    const found = new Map<string, Label[]>()
    for (const label of labels.value ?? [])
      for (const [kind, ids] of Object.entries(label.on))
        for (const id of ids)
          found.set(`${kind} ${id}`, [...(found.get(`${kind} ${id}`) ?? []), label])
    return found
  })
  const labelsOn = (kind: Labelled, id: number) => byItem.value.get(`${kind} ${id}`) ?? []
  return { labels, problem, reload, labelsOn }
}

/** Which label a list is narrowed to, and whether it stands by labels: stays while one goes from row to row. */
const useLabelChoices = defineStore('label-choices', () => {
  const choices = reactive<Record<string, { label: number | null; grouped: boolean }>>({})
  function of(list: string) {
    choices[list] ??= { label: null, grouped: false }
    // Read from it: what was assigned is not what is watched.
    return choices[list]
  }
  return { of }
})

/**
 * A list of things of one kind by their labels: narrowed to one (`?label=3`), or each under its labels (`?by=label`).
 * `list`: the name of the list, where several show the same kind.
 */
export function useLabelView(kind: Labelled, list: string = kind) {
  const route = useRoute()
  const choice = useLabelChoices().of(list)
  const { labels, problem, labelsOn } = useLabels()
  watch(
    () => [route.query.label, route.query.by],
    ([label, by]) => {
      if (Number(label) > 0) choice.label = Number(label)
      if (by === 'label') choice.grouped = true
    },
    { immediate: true },
  )
  function show(next: { label?: number | null; grouped?: boolean }) {
    Object.assign(choice, next)
    const { label: _, by: __, ...rest } = route.query
    const query = {
      ...rest,
      ...(choice.label && { label: String(choice.label) }),
      ...(choice.grouped && { by: 'label' }),
    }
    void goTo({ query }, { replace: true })
  }
  /** A path with what is chosen here in its query. */
  function at(path: string) {
    const query = [
      choice.label ? `label=${choice.label}` : '',
      choice.grouped ? 'by=label' : '',
    ].filter(Boolean)
    return query.length ? `${path}?${query.join('&')}` : path
  }
  /** The one it is narrowed to; none where that is not there any more. */
  const label = computed(() => labels.value?.find(({ id }) => id === choice.label) ?? null)
  /** The rows that are shown; null while it is not known which have the label. */
  function kept<R extends { id: number }>(rows: readonly R[] | null): R[] | null {
    if (!rows || (choice.label && !labels.value)) return null
    return rows.filter(({ id }) => !label.value || label.value.on[kind].includes(id))
  }
  /** Those rows under each of their labels; null where they do not stand so. */
  const groups = <R extends { id: number }>(rows: readonly R[] | null) =>
    choice.grouped && labels.value && rows
      ? groupByLabel(rows, labels.value, ({ id }) => labelsOn(kind, id).map((one) => one.id))
      : null
  /** The labels that are shown at something: without the one it stands under, or all have. */
  const marks = (id: number, heading: string) =>
    labelsOn(kind, id).filter(
      (one) => one.id !== label.value?.id && !(choice.grouped && one.name === heading),
    )
  return reactive({ kind, choice, labels, problem, label, kept, groups, marks, at, show })
}

/** How many things of each kind have a label, in words. */
export function labelUse(on: Record<Labelled, number[]>): string {
  const words = labelledKinds
    .filter((kind) => on[kind].length)
    .map((kind) => several(on[kind].length, labelled[kind].one, labelled[kind].many))
  return words.length ? words.join(', ') : 'on nothing'
}
