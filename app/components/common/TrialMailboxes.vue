<script setup lang="ts">
import { trialMailboxInput, type TrialMailboxInput } from '~~/shared/trial-input'

/** Mailboxes of one's own at providers, in which letters are tried. */
const mailboxes = useAnswer<
  { id: number; address: string; host: string; port: number; secure: boolean }[]
>(() => '/api/trial-mailboxes', { live: false })
const notices = useNotices()
const empty = { address: '', host: '', port: 993, secure: true, login: '', password: '' }
const { form, faults, busy, submit } = useForm(trialMailboxInput, {
  ...empty,
} as TrialMailboxInput & Record<string, unknown>)
const adding = ref(false)
async function add() {
  // Most providers let one in by the address itself.
  form.login ||= form.address
  const done = await submit((body) => changeAt('/api/trial-mailboxes', { method: 'POST', body }))
  if (!done) return
  Object.assign(form, empty)
  adding.value = false
  await mailboxes.reload()
}
async function remove({ id, address }: { id: number; address: string }) {
  if (!(await act(`/api/trial-mailboxes/${id}`, 'DELETE'))) return
  await mailboxes.reload()
  notices.say(`${address} is removed.`, {
    label: 'Undo',
    run: async () => {
      await act(`/api/trial-mailboxes/${id}/restore`, 'POST')
      await mailboxes.reload()
    },
  })
}
</script>

<template>
  <section id="trial-mailboxes" class="sheet mt-4 p-5" aria-labelledby="mailboxes-title">
    <h2 id="mailboxes-title">Trial mailboxes</h2>
    <p class="muted">
      Mailboxes of your own at the providers your readers use. The proof sends a letter there and
      looks, over IMAP, where it came to.
    </p>
    <table v-if="mailboxes.answer.value?.length" class="grid-table mt-2">
      <tbody>
        <tr v-for="one in mailboxes.answer.value" :key="one.id">
          <td class="font-semibold">{{ one.address }}</td>
          <td class="muted">{{ one.host }}:{{ one.port }}{{ one.secure ? ', encrypted' : '' }}</td>
          <td class="num">
            <button
              v-may="'DELETE /api/trial-mailboxes/[id]'"
              type="button"
              class="btn btn-sm"
              :aria-label="`Remove ${one.address}`"
              @click="remove(one)"
            >
              Remove
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <button
      v-may="'POST /api/trial-mailboxes'"
      v-if="!adding"
      type="button"
      class="btn mt-3"
      @click="adding = true"
    >
      Add a mailbox
    </button>
    <form v-else class="mt-3" novalidate @submit.prevent="add">
      <div class="grid grid-cols-2 gap-x-4">
        <FormField id="trial-address" label="Address" :fault="faults.address"
          ><input id="trial-address" v-model="form.address" class="field" type="email"
        /></FormField>
        <FormField
          id="trial-login"
          label="Name to log in with"
          :fault="faults.login"
          hint="Empty: the address."
          ><input id="trial-login" v-model="form.login" class="field" autocomplete="off"
        /></FormField>
        <FormField id="trial-host" label="IMAP server" :fault="faults.host"
          ><input
            id="trial-host"
            v-model="form.host"
            class="field"
            placeholder="imap.provider.example"
        /></FormField>
        <FormField id="trial-password" label="Password" :fault="faults.password"
          ><input
            id="trial-password"
            v-model="form.password"
            class="field"
            type="password"
            autocomplete="new-password"
        /></FormField>
        <FormField id="trial-port" label="Port" :fault="faults.port"
          ><input id="trial-port" v-model.number="form.port" class="field" type="number"
        /></FormField>
        <label class="mt-7 flex items-center gap-2 self-start"
          ><input v-model="form.secure" type="checkbox" />Encrypted from the start (TLS)</label
        >
      </div>
      <p v-if="faults.form" class="fault mb-2" role="alert">{{ faults.form }}</p>
      <button class="btn btn-go" :disabled="busy">Add it</button>
      <button type="button" class="btn ml-2" @click="adding = false">Not now</button>
    </form>
  </section>
</template>
