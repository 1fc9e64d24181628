<script setup lang="ts">
interface Row {
  id: number
  name: string
  subject: string
  state: string
  list: string | null
  scheduled_at: number | null
  started_at: number | null
  created_at: number
  held_by: string | null
  held_note: string | null
  accepted: number | null
  complained: number | null
  opened: number | null
}
const route = useRoute()
const { dayAndTime } = useTimes()
const { answer: all } = useAnswer<Row[]>(() => '/api/mailings')
const view = useLabelView('mailing')
const mailings = computed(() => view.kept(all.value))
const order = ['sending', 'held', 'scheduled', 'draft', 'sent']
const names: Record<string, string> = {
  sending: 'Sending',
  held: 'Blocked, paused, stopped',
  scheduled: 'Scheduled',
  draft: 'Drafts',
  sent: 'Sent',
}
/** By their state, or under each of their labels. */
const groups = computed(
  () =>
    view
      .groups(mailings.value)
      ?.map(({ label, rows }) => ({ name: label?.name ?? 'No label', rows })) ??
    order
      .map((state) => ({
        name: names[state]!,
        rows: (mailings.value ?? []).filter((row) => row.state === state),
      }))
      .filter(({ rows }) => rows.length),
)
/** Each once, in the order it is first met. */
const flat = computed(() => [...new Set(groups.value.flatMap(({ rows }) => rows))])
const chosen = computed(
  () => flat.value.find((row) => String(row.id) === route.query.mailing) ?? flat.value[0],
)
const when = (row: Row) => row.started_at ?? row.scheduled_at ?? row.created_at
const preview = useAnswer<{ html: string; reader: { name: string; address: string } | null }>(
  () => (chosen.value ? `/api/mailings/${chosen.value.id}/read-as` : null),
  { live: false },
)
const notices = useNotices()
const session = useSession()
const asking = ref(false)
const labelling = ref(false)

async function remove(row: Row) {
  asking.value = false
  if (await act(`/api/mailings/${row.id}`, 'DELETE')) notices.say(`“${row.name}” is deleted.`)
}
async function again(row: Row) {
  const goOn = wayOn()
  const made = await act<{ id: number }>(`/api/mailings/${row.id}/duplicate`, 'POST')
  if (made) await goOn(`/mail/${made.id}/letter`, 'The copy is made.')
}
useKeys((event) => {
  if (isWriting(event) || event.ctrlKey || event.metaKey) return
  if (event.key === 'n') void writeLetter()
  if (event.key.toLowerCase() === 'l' && chosen.value && session.may('POST /api/labels')) {
    // It is no letter of the label that is written next.
    event.preventDefault()
    labelling.value = true
  }
  const at = flat.value.findIndex((row) => row.id === chosen.value?.id)
  const next =
    event.key === 'j' ? flat.value[at + 1] : event.key === 'k' ? flat.value[at - 1] : undefined
  if (next) void goTo({ query: { ...route.query, mailing: next.id } }, { replace: true })
})
</script>

<template>
  <div class="flex h-full">
    <nav class="side w-[330px]" aria-label="Mailings">
      <div class="px-4 pb-1">
        <button
          v-may="'POST /api/mailings'"
          class="btn btn-go w-full justify-center"
          @click="writeLetter"
        >
          Write a letter
        </button>
        <p class="small mt-2 flex gap-4">
          <NuxtLink to="/mail/calendar" class="link">Calendar</NuxtLink>
          <NuxtLink to="/mail/stamps" class="link">Stamps</NuxtLink>
          <NuxtLink to="/mail/pictures" class="link">Pictures</NuxtLink>
          <NuxtLink to="/settings/letterhead" class="link">Letterhead</NuxtLink>
        </p>
      </div>
      <LabelView class="mt-2 px-4 pb-1" :view="view" />
      <p v-if="mailings && view.label && !mailings.length" class="muted small px-4 py-2">
        No mailing has this label.
      </p>
      <template v-for="(group, i) in groups" :key="i">
        <div class="side-title">{{ group.name }}</div>
        <NuxtLink
          v-for="row in group.rows"
          :key="row.id"
          :to="{ path: '/mail', query: { ...$route.query, mailing: row.id } }"
          class="side-item flex-col !gap-0"
          :class="chosen?.id === row.id && 'here'"
          :aria-current="chosen?.id === row.id ? 'true' : undefined"
        >
          <span class="truncate">{{ row.name }}</span><span
            class="flex flex-wrap items-center gap-x-2"
            ><span class="muted small font-normal">{{
              row.state === 'draft'
                ? (row.list ?? 'no list yet')
                : `${dayAndTime(when(row))} · ${row.list}`
            }}</span>
            <LabelMarks :labels="view.marks(row.id, group.name)"
          /></span>
        </NuxtLink>
      </template>
    </nav>
    <div class="flex min-w-0 flex-1 flex-col px-[22px] py-4">
      <template v-if="chosen">
        <div class="flex items-start justify-between gap-4">
          <div class="min-w-0">
            <h1 class="truncate">{{ chosen.name }}</h1>
            <p class="muted mt-0.5 truncate">
              {{ chosen.subject || 'No subject yet' }} · {{ chosen.list ?? 'no list yet' }} ·
              {{ dayAndTime(when(chosen)) }}
            </p>
          </div>
          <div class="flex flex-none items-center gap-2">
            <StateMark :state="mailingState(chosen)" />
            <button v-may="'POST /api/labels'" class="btn" @click="labelling = true">Labels</button>
            <button v-may="'POST /api/mailings/[id]/duplicate'" class="btn" @click="again(chosen)">
              Make a copy
            </button>
            <button
              v-may="'DELETE /api/mailings/[id]'"
              v-if="!chosen.started_at"
              class="btn btn-bad"
              @click="asking = true"
            >
              Delete
            </button>
            <NuxtLink v-if="chosen.started_at" :to="`/mail/${chosen.id}/results`" class="btn btn-go"
              >See results</NuxtLink
            >
            <NuxtLink v-else :to="`/mail/${chosen.id}/letter`" class="btn btn-go"
              >Open the letter</NuxtLink
            >
          </div>
        </div>
        <p
          v-if="chosen.held_note && chosen.state === 'held'"
          class="mt-3 rounded-md border border-bad-600 bg-bad-100 px-3 py-2"
        >
          {{ chosen.held_note }}
        </p>
        <p v-if="preview.answer.value?.reader" class="muted small mt-3">
          As {{ preview.answer.value.reader.name || preview.answer.value.reader.address }} reads it
        </p>
        <iframe
          v-if="preview.answer.value"
          :srcdoc="framed(preview.answer.value.html)"
          sandbox=""
          title="The letter"
          class="mt-1.5 min-h-0 flex-1 rounded-md border border-line bg-sheet"
        />
      </template>
      <div v-else-if="all?.length === 0" class="mx-auto max-w-md pt-[12vh]">
        <h1>No letters yet</h1>
        <p class="muted mt-1">
          Drafts, what is scheduled and what went out will stand here, each with what came of it.
        </p>
        <button v-may="'POST /api/mailings'" class="btn btn-go mt-4" @click="writeLetter">
          Write a letter
        </button>
      </div>
    </div>
    <LabelsDialog
      v-if="labelling && chosen"
      kind="mailing"
      :item-id="chosen.id"
      :name="chosen.name"
      @close="labelling = false"
    />
    <BaseDialog :open="asking && !!chosen" title="Delete this letter?" @close="asking = false">
      <p>“{{ chosen?.name }}” and its letter will be gone. It has not been sent to anybody.</p>
      <template #actions
        ><button class="btn" @click="asking = false">Keep it</button
        ><button class="btn btn-bad" @click="remove(chosen!)">Delete</button></template
      >
    </BaseDialog>
  </div>
</template>
