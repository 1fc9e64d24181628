<script setup lang="ts">
import { readRule, writeRule, type Rule } from '~~/core/segments'

/** A segment: its rules as lines, the people they keep, what it shares with others. "new" is one not saved yet. */
const route = useRoute()
const store = useSegment()
const why = ref<{ id: number; name: string } | null>(null)
const asText = ref(false)
const saving = ref(false)
const takeOut = ref(false)
const isNew = computed(() => route.params.id === 'new')

watch(
  () => [route.params.id, route.query.text, route.query.rule],
  async () => {
    asText.value = false
    if (!isNew.value) return store.open(Number(route.params.id))
    const text = typeof route.query.text === 'string' ? route.query.text : ''
    const given = readRule(parsed(route.query.rule))
    const read = given
      ? { ok: true, rule: given }
      : text
        ? await orNotice(question<{ ok: boolean; rule: Rule }>('/api/segments/read', { text }))
        : null
    const name = typeof route.query.name === 'string' ? route.query.name : ''
    await store.open(
      null,
      read?.ok ? { name, rule: read.rule } : { name, rule: { kind: 'all', of: [] } },
    )
  },
  { immediate: true },
)

/** JSON from the page's address; null where it is none. */
function parsed(json: unknown): unknown {
  try {
    return JSON.parse(String(json))
  } catch {
    return null
  }
}
async function save() {
  saving.value = true
  const id = await store.save()
  saving.value = false
  if (id === null) return
  useLive().changes++
  useNotices().say(`${store.name} is saved.`)
  if (isNew.value) await goTo(`/people/segments/${id}`, { replace: true })
}
async function freeze() {
  const goOn = wayOn()
  const made = await act<{ id: number }>(`/api/segments/${store.saved!.id}/freeze`, 'POST')
  if (!made) return
  useLive().changes++
  await goOn(`/people/segments/${made.id}`, 'The frozen copy is made.')
}
async function remove() {
  const { id } = store.saved!
  const { name } = store
  if (!(await act(`/api/segments/${id}`, 'DELETE'))) return
  useLive().changes++
  await goTo('/people')
  useNotices().say(`${name} is deleted.`, {
    label: 'Undo',
    run: async () => {
      const back = await act(`/api/segments/${id}/restore`, 'POST')
      useLive().changes++
      if (back) await goTo(`/people/segments/${id}`)
    },
  })
}
useKeys((event) => {
  if (!(event.ctrlKey || event.metaKey) || isWriting(event)) return
  if (event.key.toLowerCase() === 'z') {
    event.preventDefault()
    if (event.shiftKey) store.redo()
    else store.undo()
  }
  if (event.key === 's') {
    event.preventDefault()
    if (store.changed && store.name.trim()) void save()
  }
})
/** A segment's fields in words, where two people's stand side by side. */
function describe(field: string, value: unknown): string {
  if (field !== 'rule' || !store.vocabulary) return String(value)
  const {
    fields,
    lists,
    tags,
    mailings,
    segments,
    sequences,
    imports,
    signUps,
    goneTags,
    currency,
  } = store.vocabulary
  const named = (all: { id: number; name: string }[]) =>
    new Map(all.map(({ id, name }) => [id, name]))
  const { maximumFractionDigits } = new Intl.NumberFormat('en-GB', {
    style: 'currency',
    currency,
  }).resolvedOptions()
  return writeRule(value as Rule, {
    fields: new Map(fields.map((one) => [one.key, one])),
    lists: named(lists),
    tags: named(tags),
    mailings: named(mailings),
    sequences: named(sequences),
    imports: named(imports),
    signUps: named(signUps),
    goneTags: named(goneTags),
    segments: new Map(segments.map(({ id, name }) => [id, { name }])),
    moneyDigits: maximumFractionDigits ?? 2,
    cutOf: () => null,
  })
}
const uses = computed(() =>
  store.saved
    ? [
        ...store.saved.usedBy.mailings,
        ...store.saved.usedBy.sequences,
        ...store.saved.usedBy.segments,
      ].map(({ name }) => `“${name}”`)
    : [],
)
</script>

<template>
  <div class="mx-auto max-w-[1100px]">
    <p v-if="store.problem && !store.counts" class="fault" role="alert">{{ store.problem }}</p>
    <p v-if="!store.known && !store.problem" class="muted" role="status">Asking for the segment…</p>
    <template v-if="store.known">
      <header class="flex items-start justify-between gap-4">
        <div class="min-w-0 flex-1">
          <input
            v-model="store.name"
            class="w-full rounded bg-transparent font-head text-[24px] font-[640] placeholder:text-ink-500"
            aria-label="Name of the segment"
            placeholder="A new segment"
            :disabled="store.fixed"
          />
          <p class="muted mt-0.5">
            {{ store.frozen ? 'Frozen: its people stay as they were. ' : ''
            }}{{ store.counts?.text }}
            <button type="button" class="link" :aria-expanded="asText" @click="asText = !asText">
              {{ asText ? 'close' : 'as text' }}
            </button>
          </p>
        </div>
        <div class="flex-none text-right">
          <div
            class="font-head text-[24px] font-[640]"
            :class="store.asking && 'text-ink-500'"
            aria-live="polite"
          >
            {{ store.counts ? count(store.counts.total) : '…' }}
          </div>
          <div class="muted small">
            {{ store.counts?.total === 1 ? 'person' : 'people' }} now<template v-if="store.counts">
              · {{ store.counts.ms }} ms</template
            >
          </div>
        </div>
      </header>
      <RuleText v-if="asText" class="mt-3" @close="asText = false" />
      <p v-if="store.problem && store.counts" class="fault mt-2" role="alert">
        {{ store.problem }}
      </p>

      <div v-if="store.saved?.query" class="sheet mt-3 p-4">
        <h2>By this query in SQL</h2>
        <pre class="small mt-2 overflow-auto whitespace-pre-wrap">{{ store.saved.query }}</pre>
        <NuxtLink
          class="btn btn-sm mt-3"
          :to="{ path: '/people/sql', query: { q: store.saved.query } }"
          >Ask again</NuxtLink
        >
      </div>
      <section v-else class="sheet mt-3" aria-label="Rules">
        <RuleLines />
        <div v-if="!store.fixed" class="rounded-b-md bg-canvas-50 py-[2px] pl-[66px]">
          <AddRule @add="(rule: Rule) => store.add([], rule)" />
        </div>
      </section>

      <div class="mt-3 flex flex-wrap items-center gap-2">
        <button
          v-if="!store.fixed"
          type="button"
          class="btn btn-go"
          :disabled="!store.changed || !store.name.trim() || saving"
          @click="save"
        >
          {{ saving ? 'Saving…' : isNew ? 'Save segment' : 'Save changes' }}
        </button>
        <button type="button" class="btn" :disabled="store.past.length === 0" @click="store.undo">
          Undo
        </button>
        <button type="button" class="btn" :disabled="store.future.length === 0" @click="store.redo">
          Redo
        </button>
        <span v-if="store.changed && store.saved" class="muted"
          >Not saved yet.
          <button type="button" class="link" @click="store.discard()">
            Discard the changes
          </button></span
        >
        <span class="flex-1" />
        <template v-if="store.saved">
          <button
            v-may="'POST /api/people/export'"
            type="button"
            class="btn"
            :disabled="store.changed"
            @click="takeOut = true"
          >
            Export…
          </button>
          <button
            v-if="!store.fixed"
            type="button"
            class="btn"
            :disabled="store.changed"
            @click="freeze"
          >
            Freeze a copy
          </button>
          <button
            v-may="'DELETE /api/segments/[id]'"
            type="button"
            class="btn btn-bad"
            @click="remove"
          >
            Delete
          </button>
        </template>
      </div>
      <KeptState v-if="store.keeper" class="mt-3" :keeper="store.keeper" :describe="describe" />
      <p v-if="uses.length" class="muted small mt-2">
        Used by {{ uses.join(', ') }}: a change here changes who they go to.
      </p>

      <StartingPoints v-if="isNew && store.rule.of.length === 0" class="mt-4" />
      <div v-else class="mt-4 grid grid-cols-[minmax(0,8fr)_minmax(0,5fr)] items-start gap-4">
        <SegmentPeople @why="why = $event" />
        <div>
          <SharedSegments />
          <PastSizes v-if="!store.frozen && !store.saved?.query" class="mt-4" />
          <SegmentTrend
            v-if="store.saved && !store.frozen"
            :id="store.saved.id"
            :of-another-rule="store.changed"
            class="mt-4"
          />
        </div>
      </div>
      <TakeOutDialog
        v-if="takeOut && store.saved"
        :which="{ segment: String(store.saved.id) }"
        :about="`${people(store.counts?.total ?? 0)} of ${store.saved.name}.`"
        @close="takeOut = false"
      />
      <WhyDialog v-if="why" :person="why" @close="why = null" />
    </template>
  </div>
</template>
