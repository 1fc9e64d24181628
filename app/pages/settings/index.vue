<script setup lang="ts">
import { isAlike, type Asked } from '~~/core/choices'
import { languageNames } from '~~/core/readers'
import { accountInput, type AccountInput } from '~~/shared/account-inputs'

const notices = useNotices()
const session = useSession()
type Settings = AccountInput & Record<string, unknown>
type Answer = AccountInput & { version: string; dkim_selector: string; sends: boolean; url: string }
const { form, faults, busy, submit } = useForm(accountInput, {
  name: '',
  sender_name: '',
  sender_address: '',
  postal_address: '',
  zone: '',
  pace_per_minute: null,
  cap_mailings: null,
  cap_days: 7,
  quiet_from: null,
  quiet_to: null,
  callback_seconds: 10,
  replies: 'sender',
  language: 'en',
} as Settings)
const path = '/api/account'
const fields = Object.keys(form)
const versioned = (of: AccountInput & { version: string }) => ({
  value: Object.fromEntries(fields.map((key) => [key, of[key as keyof AccountInput]])) as Settings,
  version: of.version,
})
/** What is set here is a draft until it is saved, also when one has gone elsewhere meanwhile. */
const keeper = keeperOf<Settings>(path, () => ({
  of: path,
  manual: true,
  names: {
    name: 'Account',
    sender_name: 'Sender’s name',
    sender_address: 'Sender’s address',
    postal_address: 'Postal address',
    zone: 'Time zone',
    pace_per_minute: 'Pace, messages a minute',
    cap_mailings: 'To one person at most, mailings',
    cap_days: 'in so many days',
    quiet_from: 'Quiet hours',
    quiet_to: 'Quiet hours, until',
    callback_seconds: 'Can be called back for, seconds',
    replies: 'Replies go',
    language: 'Readers are spoken to in',
  },
  load: async () => versioned(await request<Answer>(path)),
  save: async (next, version) =>
    versioned(await changeAt<Answer>(path, { method: 'PUT', body: { ...next, version } })),
}))
const { answer } = useAnswer<Answer, Asked>(() => path, {
  before: () => keeper.asks(),
  after: (got, asked) => keeper.hear(asked, versioned(got)),
})
// An empty number is none.
const filled = (): Settings => ({
  ...form,
  pace_per_minute: form.pace_per_minute || null,
  cap_mailings: form.cap_mailings || null,
  cap_days: form.cap_days || 7,
  callback_seconds: form.callback_seconds || 0,
})
watch(
  () => keeper.shown(),
  (now) => now && !isAlike(now, filled()) && Object.assign(form, now),
  { immediate: true },
)
watch(form, () => {
  const now = keeper.shown()
  if (now && !isAlike(now, filled())) keeper.choose(filled())
})
const clockHours = Array.from({ length: 24 }, (_, hour) => `${String(hour).padStart(2, '0')}:00`)
/** Quiet hours have both ends, or none. */
function fillQuiet() {
  if (form.quiet_from === null) form.quiet_to = null
  else form.quiet_to ??= form.quiet_from === 7 ? 8 : 7
}
/** Who letters come from is changed by owners alone. */
const mayChangeSender = computed(() => session.user?.role === 'owner')
const draft = computed(() => keeper.state.value.mine !== null)
const repliesGo = [
  {
    key: 'sender',
    name: 'to the sender’s address',
    about: 'As with any letter. Satchel does not see them, and results say “not measured”.',
  },
  {
    key: 'kept',
    name: 'here, and on to the sender’s address',
    about:
      'They stand with the person and the mailing, and count. Your mail server has to hand in what comes to r-…@ of your domain, as it does with bounces.',
  },
] as const
const domain = computed(() => form.sender_address.split('@')[1] ?? '')
async function save() {
  if (!(await submit(() => keeper.save())) || !keeper.settled()) return
  await session.load()
  notices.say('Saved. Letters that have not gone out follow.')
}
</script>

<template>
  <div class="mx-auto max-w-3xl px-6 py-5">
    <h1>Settings</h1>
    <SettingsNav />
    <form v-if="answer" class="sheet mt-4 p-5" novalidate @submit.prevent="save">
      <FormField
        id="name"
        label="Account"
        :fault="faults.name"
        hint="What your readers know you by; stands on public pages."
        ><input id="name" v-model="form.name" class="field"
      /></FormField>
      <div class="grid grid-cols-2 gap-4">
        <FormField id="sender_name" label="Sender’s name" :fault="faults.sender_name"
          ><input
            id="sender_name"
            v-model="form.sender_name"
            class="field"
            :readonly="!mayChangeSender"
        /></FormField>
        <FormField id="sender_address" label="Sender’s address" :fault="faults.sender_address"
          ><input
            id="sender_address"
            v-model="form.sender_address"
            class="field"
            :readonly="!mayChangeSender"
            type="email"
        /></FormField>
      </div>
      <FormField
        id="postal_address"
        label="Postal address"
        :fault="faults.postal_address"
        hint="Stands in the footer of every letter; most countries ask for it by law."
      >
        <textarea id="postal_address" v-model="form.postal_address" class="field" rows="3" />
      </FormField>
      <div class="grid grid-cols-2 gap-4">
        <FormField id="zone" label="Time zone" :fault="faults.zone"
          ><ZoneField id="zone" v-model="form.zone"
        /></FormField>
        <FormField
          id="language"
          label="Readers are spoken to in"
          :fault="faults.language"
          hint="Unless a list or a field of theirs says otherwise. Each word can be changed under Words for readers."
          ><select id="language" v-model="form.language" class="field">
            <option v-for="(name, code) in languageNames" :key="code" :value="code">
              {{ name }}
            </option>
          </select></FormField
        >
        <FormField
          id="cap"
          label="To one person at most, mailings"
          :fault="faults.cap_mailings"
          hint="Who had so many already is spared; a mailing may go past it. Empty: no cap."
          ><input id="cap" v-model.number="form.cap_mailings" class="field" type="number" min="1"
        /></FormField>
        <FormField id="cap_days" label="in so many days" :fault="faults.cap_days"
          ><input
            id="cap_days"
            v-model.number="form.cap_days"
            class="field"
            type="number"
            min="1"
            max="365"
        /></FormField>
        <FormField
          id="quiet_from"
          label="Quiet hours of sequences, from"
          :fault="faults.quiet_from"
          hint="What comes due in them waits for their end, unless a mail says otherwise. On the account’s clock."
          ><select id="quiet_from" v-model="form.quiet_from" class="field" @change="fillQuiet">
            <option :value="null">none</option>
            <option v-for="(hour, n) in clockHours" :key="hour" :value="n">{{ hour }}</option>
          </select></FormField
        >
        <FormField id="quiet_to" label="until" :fault="faults.quiet_to"
          ><select
            id="quiet_to"
            v-model="form.quiet_to"
            class="field"
            :disabled="form.quiet_from === null"
          >
            <option v-if="form.quiet_from === null" :value="null">none</option>
            <option v-for="(hour, n) in clockHours" :key="hour" :value="n">{{ hour }}</option>
          </select></FormField
        >
        <FormField
          id="pace"
          label="Pace, messages a minute"
          :fault="faults.pace_per_minute"
          hint="Empty: as fast as the mail server takes them."
          ><input
            id="pace"
            v-model.number="form.pace_per_minute"
            class="field"
            type="number"
            min="1"
        /></FormField>
        <FormField
          id="callback"
          label="A mailing can be called back for, seconds"
          :fault="faults.callback_seconds"
          hint="After Send, before anything goes out. 0: it goes at once."
          ><input
            id="callback"
            v-model.number="form.callback_seconds"
            class="field"
            type="number"
            min="0"
            max="3600"
        /></FormField>
      </div>
      <fieldset class="mb-4">
        <legend class="font-[560]">Replies go</legend>
        <label v-for="way in repliesGo" :key="way.key" class="mt-1.5 flex gap-2.5">
          <input v-model="form.replies" type="radio" name="replies" :value="way.key" class="mt-1" />
          <span
            >{{ way.name }}<span class="muted small block">{{ way.about }}</span></span
          >
        </label>
      </fieldset>
      <p v-if="faults.form" class="fault mb-3" role="alert">{{ faults.form }}</p>
      <KeptState class="mb-3" :keeper="keeper" />
      <div class="flex items-center gap-3">
        <button v-may="'PUT /api/account'" class="btn btn-go" :disabled="busy">Save</button>
        <template v-if="draft">
          <span class="muted">What you changed is kept here until you save it.</span>
          <button type="button" class="link" @click="keeper.takeTheirs()">
            Discard the changes
          </button>
        </template>
      </div>
    </form>
    <div v-if="answer" class="sheet mt-4 p-5">
      <h2>Mail</h2>
      <p class="mt-1">
        {{
          answer.sends
            ? 'A mail server is set; letters go out through it.'
            : 'No mail server is set, so nothing goes out.'
        }}
        Messages are signed with DKIM for <b>{{ domain }}</b>, selector
        <b>{{ answer.dkim_selector }}</b>.
      </p>
      <p class="muted mt-1">Readers reach this Satchel at {{ answer.url }}.</p>
    </div>
    <TrialMailboxes />
    <ApiTokens v-if="session.may('GET /api/tokens')" />
  </div>
</template>
