<script setup lang="ts">
import type { Field, FieldValue } from '~~/core/people'

interface Person {
  id: number
  address: string
  name: string
  joinedAt: number
  currency: string
  values: Record<string, FieldValue>
  fields: Field[]
  pulse: ('clicked' | 'opened' | 'delivered' | 'not-sent' | 'bounced')[]
  hours: number[][]
  tier: string
  engagement: number
  keenness: number[]
  spent: number
  segments: { id: number; name: string }[]
  subscriptions: { list_id: number; name: string; state: string; since: number }[]
  tags: string[]
  setAside: { at: number; reason: string; detail: string } | null
  evidence: {
    at: number
    state: string
    way: string
    way_ref: string | null
    list: string
    wording: string | null
  }[]
  mailings: {
    id: number
    name: string
    state: string
    at: number
    opened_at: number | null
    clicked_at: number | null
    left_at: number | null
    answer: string | null
  }[]
  orders: {
    id: number
    number: string
    at: number
    money: number
    items: { name: string; quantity: number }[]
  }[]
  events: { name: string; at: number; props: string }[]
  notes: { id: number; at: number; by_name: string; text: string }[]
}
const route = useRoute()
const { look: tagLook } = useTags()
const { date, dayAndTime } = useTimes()
const {
  answer: person,
  problem,
  reload,
} = useAnswer<Person>(() => `/api/people/${String(route.params.id)}`)
const lists = useAnswer<{ lists: { id: number; name: string }[] }>(() => '/api/people/overview', {
  live: false,
})
const dialog = ref<'aside' | 'list' | 'merge' | 'erase' | null>(null)
const note = ref('')
const tag = ref('')

async function change(
  body: { address?: string; values?: Record<string, FieldValue | null> },
  what: string,
) {
  const path = `/api/people/${person.value!.id}`
  const done = await ask<{ undo: object }>(path, { method: 'PUT', body })
  await reload()
  if (!done) return
  useNotices().say(`${what} is changed.`, {
    label: 'Undo',
    run: async () => {
      await ask(path, { method: 'PUT', body: done.undo })
      await reload()
    },
  })
}
async function act(
  body: { act: string; tag?: string; listId?: number; reason?: string },
  opposite?: string,
) {
  const ids = [person.value!.id]
  const done = await ask<{ changed: number[] }>('/api/people/act', {
    method: 'POST',
    body: { ids, ...body },
  })
  await reload()
  useLive().changes++
  if (!done?.changed.length || !opposite) return
  useNotices().say('Done.', {
    label: 'Undo',
    run: async () => {
      await ask('/api/people/act', { method: 'POST', body: { ids, ...body, act: opposite } })
      await reload()
    },
  })
}
async function addNote() {
  if (!note.value.trim()) return
  const done = await ask(`/api/people/${person.value!.id}/notes`, {
    method: 'POST',
    body: { text: note.value },
  })
  if (done) note.value = ''
  await reload()
}
async function removeNote(one: Person['notes'][number]) {
  const path = `/api/people/${person.value!.id}/notes`
  await ask(`${path}/${one.id}`, { method: 'DELETE' })
  await reload()
  useNotices().say('The note is deleted.', {
    label: 'Undo',
    run: async () => {
      await ask(path, { method: 'POST', body: { text: one.text } })
      await reload()
    },
  })
}
function addTag() {
  if (tag.value.trim()) void act({ act: 'tag', tag: tag.value.trim() }, 'untag')
  tag.value = ''
}

/** One line of time: mail, orders, events, consent and notes, the latest first. */
const line = computed(() => {
  const { value: of } = person
  if (!of) return []
  const items = [
    ...of.mailings.flatMap((mailing) => [
      {
        at: mailing.at,
        kind: 'mail',
        words: `${mailing.name}: ${[mailing.state, mailing.answer].filter(Boolean).join(', ')}`,
        to: `/results/${mailing.id}`,
      },
      ...(mailing.opened_at
        ? [{ at: mailing.opened_at, kind: 'read', words: `opened ${mailing.name}`, to: null }]
        : []),
      ...(mailing.clicked_at
        ? [{ at: mailing.clicked_at, kind: 'click', words: `clicked in ${mailing.name}`, to: null }]
        : []),
    ]),
    ...of.orders.map((order) => ({
      at: order.at,
      kind: 'order',
      words: `${order.number}, ${money(order.money, of.currency)}: ${order.items.map(({ name, quantity }) => (quantity > 1 ? `${quantity} × ${name}` : name)).join(', ')}`,
      to: null,
    })),
    ...of.events.map((event) => ({
      at: event.at,
      kind: 'event',
      words: `${event.name}: ${Object.values(JSON.parse(event.props) as object).join(', ')}`,
      to: null,
    })),
    ...of.evidence.map((one) => ({
      at: one.at,
      kind: 'consent',
      words: `${one.state} on ${one.list} ${one.way.startsWith('by ') ? '' : 'by '}${one.way}${one.wording ? ` · “${one.wording}”` : ''}`,
      to: null,
    })),
    ...of.notes.map((one) => ({
      at: one.at,
      kind: 'note',
      words: `${one.by_name}: ${one.text}`,
      to: null,
    })),
    { at: of.joinedAt, kind: 'joined', words: 'came on file', to: null },
  ]
  return items.sort((a, b) => b.at - a.at)
})
const shownKind = ref('')
const kinds = computed(() => [...new Set(line.value.map(({ kind }) => kind))])
const shownLine = computed(() =>
  line.value.filter(({ kind }) => !shownKind.value || kind === shownKind.value).slice(0, 120),
)
</script>

<template>
  <p v-if="problem" class="fault" role="alert">{{ problem }}</p>
  <div v-else-if="person" class="mx-auto max-w-[1100px]">
    <div class="flex items-start justify-between gap-4">
      <div>
        <h1>{{ person.name || person.address }}</h1>
        <p class="muted mt-0.5">
          {{ person.address }} · on file since {{ date(person.joinedAt) }} · {{ person.tier }},
          engagement
          {{ person.engagement.toFixed(1) }}
        </p>
      </div>
      <div class="text-right">
        <PulseBars :bars="person.pulse" />
        <div class="muted small">last 12 mailings</div>
      </div>
    </div>
    <div class="mt-3 flex flex-wrap gap-2">
      <button v-if="!person.setAside" type="button" class="btn btn-sm" @click="dialog = 'aside'">
        Set aside
      </button>
      <button v-else type="button" class="btn btn-sm" @click="act({ act: 'take-back' })">
        Take back
      </button>
      <button type="button" class="btn btn-sm" @click="dialog = 'list'">
        Change a subscription
      </button>
      <button type="button" class="btn btn-sm" @click="dialog = 'merge'">Merge with…</button>
      <a class="btn btn-sm" :href="`/api/people/${person.id}/known.json`"
        >Give out all that is known</a
      >
      <button type="button" class="btn btn-sm btn-bad" @click="dialog = 'erase'">Erase</button>
    </div>
    <p v-if="person.setAside" class="mt-3 rounded-md border border-bad-600 bg-bad-100 px-3 py-2">
      <b>Set aside</b> {{ date(person.setAside.at) }}: {{ person.setAside.detail }} This person is
      never mailed.
    </p>
    <div class="mt-4 grid grid-cols-2 items-start gap-4">
      <section class="sheet">
        <div class="sheet-head"><h2>Known</h2></div>
        <dl class="grid grid-cols-[130px_1fr] items-center gap-y-0.5 p-3.5">
          <dt class="muted">Address</dt>
          <dd>
            <KeptInput
              class="field-inline"
              aria-label="Address"
              :value="person.address"
              @taken="change({ address: $event }, 'The address')"
            />
          </dd>
          <template v-for="field in person.fields" :key="field.key">
            <dt class="muted">{{ field.name }}</dt>
            <dd>
              <FieldInput
                :field="field"
                :value="person.values[field.key]"
                @change="change({ values: { [field.key]: $event } }, field.name)"
              />
            </dd>
          </template>
          <dt class="muted">Tags</dt>
          <dd class="flex flex-wrap items-center gap-1">
            <span v-for="one in person.tags" :key="one" :class="tagLook(one)"
              >{{ one }}
              <button
                type="button"
                class="px-0.5"
                :aria-label="`Take the tag ${one} away`"
                @click="act({ act: 'untag', tag: one }, 'tag')"
              >
                ×
              </button></span
            >
            <form @submit.prevent="addTag">
              <input
                v-model="tag"
                class="field-inline w-28"
                aria-label="Add a tag"
                placeholder="add a tag"
                maxlength="60"
              />
            </form>
          </dd>
          <dt class="muted">Segments</dt>
          <dd>
            <template v-for="(one, i) in person.segments" :key="one.id"
              >{{ i ? ', ' : ''
              }}<NuxtLink class="link" :to="`/people/segments/${one.id}`">{{
                one.name
              }}</NuxtLink></template
            >
            <template v-if="!person.segments.length">in none</template>
          </dd>
        </dl>
      </section>
      <div class="space-y-4">
        <section class="sheet">
          <div class="sheet-head"><h2>Subscriptions</h2></div>
          <p v-if="!person.subscriptions.length" class="muted p-3.5">
            On no list, so never mailed.
          </p>
          <table v-else class="grid-table">
            <tbody>
              <tr v-for="one in person.subscriptions" :key="one.list_id">
                <td>{{ one.name }}</td>
                <td>{{ one.state }}</td>
                <td class="num muted">{{ date(one.since) }}</td>
              </tr>
            </tbody>
          </table>
        </section>
        <section class="sheet">
          <div class="sheet-head"><h2>When they read</h2></div>
          <div class="p-3.5"><ReadingHours :hours="person.hours" /></div>
        </section>
        <section class="sheet">
          <div class="sheet-head">
            <h2>Engagement</h2>
            <span class="muted small">twelve months</span>
          </div>
          <div class="p-3.5"><EngagementLine :values="person.keenness" /></div>
        </section>
      </div>
    </div>
    <section class="sheet mt-4">
      <div class="sheet-head">
        <h2>Notes</h2>
        <span class="muted small">seen by your team only</span>
      </div>
      <form class="flex gap-2 p-3.5" @submit.prevent="addNote">
        <input
          v-model="note"
          class="field"
          aria-label="Write a note"
          placeholder="Write a note"
          maxlength="2000"
        />
        <button class="btn" :disabled="!note.trim()">Add</button>
      </form>
      <ul class="m-0 list-none px-3.5 pb-2">
        <li
          v-for="one in person.notes"
          :key="one.id"
          class="flex gap-2 border-t border-line-soft py-1.5"
        >
          <span class="flex-1"
            >{{ one.text }}
            <span class="muted small">{{ one.by_name }}, {{ dayAndTime(one.at) }}</span></span
          >
          <button
            type="button"
            class="muted min-h-6 min-w-6"
            aria-label="Delete this note"
            @click="removeNote(one)"
          >
            ×
          </button>
        </li>
      </ul>
    </section>
    <section class="sheet mt-4">
      <div class="sheet-head">
        <h2>Everything, in time</h2>
        <span class="flex items-center gap-3">
          <span v-if="person.orders.length" class="muted small"
            >{{ person.orders.length }} orders, {{ money(person.spent, person.currency) }}</span
          >
          <select v-model="shownKind" class="chip" aria-label="Show">
            <option value="">all kinds</option>
            <option v-for="kind in kinds" :key="kind">{{ kind }}</option>
          </select>
        </span>
      </div>
      <table class="grid-table">
        <tbody>
          <tr v-for="(one, i) in shownLine" :key="i">
            <td class="muted w-40">{{ dayAndTime(one.at) }}</td>
            <td class="muted w-20">{{ one.kind }}</td>
            <td>
              <NuxtLink v-if="one.to" :to="one.to" class="link">{{ one.words }}</NuxtLink><template
                v-else
                >{{ one.words }}</template
              >
            </td>
          </tr>
        </tbody>
      </table>
    </section>
    <ReasonDialog
      v-if="dialog === 'aside'"
      :title="`Set ${person.name || person.address} aside`"
      about="They are never mailed from then on, whatever the lists say, until you take them back."
      verb="Set aside"
      @close="dialog = null"
      @done="(reason) => ((dialog = null), act({ act: 'set-aside', reason }, 'take-back'))"
    />
    <SubscriptionDialog
      v-if="dialog === 'list'"
      :lists="lists.answer.value?.lists ?? []"
      @close="dialog = null"
      @done="(body) => ((dialog = null), act(body))"
    />
    <MergeDialog
      v-if="dialog === 'merge'"
      :person="person"
      @close="dialog = null"
      @done="((dialog = null), reload())"
    />
    <EraseDialog v-if="dialog === 'erase'" :person="person" @close="dialog = null" />
  </div>
</template>
