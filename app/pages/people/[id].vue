<script setup lang="ts">
import type { FieldValue } from '~~/core/people'
import type { Person } from '~/components/people/person'

const route = useRoute()
const { look: tagLook } = useTags()
const { date } = useTimes()
/** Meanwhile nobody is asked about who may be gone already. */
const erasing = ref(false)
const {
  answer: person,
  problem,
  reload,
} = useAnswer<Person>(() => (erasing.value ? null : `/api/people/${String(route.params.id)}`))
const lists = useAnswer<{ lists: { id: number; name: string }[] }>(() => '/api/people/overview', {
  live: false,
})
/** What they asked for on their own page and what holds now. */
const ownWishes = computed(() => {
  const { pausedUntil = null, oneInDays = null } = person.value?.limits ?? {}
  return [
    ...(pausedUntil !== null
      ? [
          `Paused their mail themselves until ${date(pausedUntil)}: they are left out of mailings until then, and sequences wait.`,
        ]
      : []),
    ...(oneInDays ? [`Asked for at most one mailing in ${oneInDays} days.`] : []),
  ]
})
const dialog = ref<'aside' | 'list' | 'sequences' | 'merge' | 'erase' | null>(null)
const tag = ref('')

async function change(
  body: { address?: string; values?: Record<string, FieldValue | null> },
  what: string,
) {
  const path = `/api/people/${person.value!.id}`
  const done = await act<{ undo: object }>(path, 'PUT', body)
  await reload()
  if (!done) return
  useNotices().say(`${what} is changed.`, {
    label: 'Undo',
    run: async () => {
      await act(path, 'PUT', done.undo)
      await reload()
    },
  })
}
async function actOn(
  body: { act: string; tag?: string; listId?: number; reason?: string },
  opposite?: string,
) {
  const ids = [person.value!.id]
  const done = await act<{ changed: number[] }>('/api/people/act', 'POST', { ids, ...body })
  await reload()
  useLive().changes++
  if (!done?.changed.length || !opposite) return
  useNotices().say('Done.', {
    label: 'Undo',
    run: async () => {
      await act('/api/people/act', 'POST', { ids, ...body, act: opposite })
      await reload()
    },
  })
}
function addTag() {
  if (tag.value.trim()) void actOn({ act: 'tag', tag: tag.value.trim() }, 'untag')
  tag.value = ''
}
</script>

<template>
  <p v-if="problem" class="fault" role="alert">{{ problem }}</p>
  <div v-else-if="person" class="mx-auto max-w-[1100px]">
    <div class="flex items-start justify-between gap-4">
      <div>
        <h1>{{ person.name || person.address }}</h1>
        <p class="muted mt-0.5">
          {{ person.address }} · on file since {{ date(person.joinedAt)
          }}<template v-if="person.source"
            >, from
            <NuxtLink
              v-if="person.source.importId"
              class="link"
              :to="`/people/imports/${person.source.importId}`"
              >{{ person.source.words }}</NuxtLink><template v-else>{{
              person.source.words
            }}</template></template
          >
          · {{ person.tier }}, engagement
          {{ person.engagement.toFixed(1) }}
        </p>
      </div>
      <div class="text-right">
        <PulseBars :bars="person.pulse" />
        <div class="muted small">last 12 mailings</div>
      </div>
    </div>
    <div class="mt-3 flex flex-wrap gap-2">
      <button
        v-may="'POST /api/people/act'"
        v-if="!person.suppressed"
        type="button"
        class="btn btn-sm"
        @click="dialog = 'aside'"
      >
        Suppress
      </button>
      <button
        v-may="'POST /api/people/act'"
        v-else
        type="button"
        class="btn btn-sm"
        @click="actOn({ act: 'take-back' })"
      >
        Restore
      </button>
      <button
        v-may="'POST /api/people/act'"
        type="button"
        class="btn btn-sm"
        @click="dialog = 'list'"
      >
        Change a subscription
      </button>
      <button
        v-may="'POST /api/sequences/[id]/people'"
        type="button"
        class="btn btn-sm"
        @click="dialog = 'sequences'"
      >
        Sequences…
      </button>
      <button
        v-may="'POST /api/people/[id]/merge'"
        type="button"
        class="btn btn-sm"
        @click="dialog = 'merge'"
      >
        Merge with…
      </button>
      <a
        v-may="'GET /api/people/[id]/known.json'"
        class="btn btn-sm"
        :href="`/api/people/${person.id}/known.json`"
        >Export all that is known</a
      >
      <button
        v-may="'POST /api/people/[id]/erase'"
        type="button"
        class="btn btn-sm btn-bad"
        @click="dialog = 'erase'"
      >
        Erase
      </button>
    </div>
    <p v-if="person.suppressed" class="mt-3 rounded-md border border-bad-600 bg-bad-100 px-3 py-2">
      <b>Suppressed</b> {{ date(person.suppressed.at) }}: {{ person.suppressed.detail }} This person
      is never mailed.
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
                :aria-label="`Remove the tag ${one}`"
                @click="actOn({ act: 'untag', tag: one }, 'tag')"
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
          <p
            v-for="words in ownWishes"
            :key="words"
            class="border-b border-line-soft bg-brass-100/60 px-3.5 py-2"
          >
            {{ words }}
          </p>
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
    <PersonTasks :person="person" class="mt-4" @change="reload" />
    <PersonNotes :person="person" class="mt-4" @change="reload" />
    <section v-if="person.replies.length" class="sheet mt-4">
      <div class="sheet-head">
        <h2>What they wrote back</h2>
        <span class="muted small">{{ several(person.replies.length, 'reply', 'replies') }}</span>
      </div>
      <ReplyList :replies="person.replies" />
    </section>
    <PersonTimeline :person="person" class="mt-4" />
    <ReasonDialog
      v-if="dialog === 'aside'"
      :title="`Set ${person.name || person.address} aside`"
      about="They are never mailed from then on, whatever the lists say, until you take them back."
      verb="Suppress"
      @close="dialog = null"
      @done="(reason) => ((dialog = null), actOn({ act: 'set-aside', reason }, 'take-back'))"
    />
    <SubscriptionDialog
      v-if="dialog === 'list'"
      :lists="lists.answer.value?.lists ?? []"
      @close="dialog = null"
      @done="(body) => ((dialog = null), actOn(body))"
    />
    <InSequences
      v-if="dialog === 'sequences'"
      :person="person"
      @close="dialog = null"
      @done="((dialog = null), reload())"
    />
    <MergeDialog
      v-if="dialog === 'merge'"
      :person="person"
      @close="dialog = null"
      @done="((dialog = null), reload())"
    />
    <EraseDialog
      v-if="dialog === 'erase'"
      :person="person"
      @erasing="erasing = $event"
      @close="dialog = null"
    />
  </div>
</template>
