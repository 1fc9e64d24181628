<script setup lang="ts">
import { passwordInput } from '~~/shared/account-inputs'

/** One's own account: password, second factor, and where one is signed in. */
const notices = useNotices()
const { dayAndTime } = useTimes()
interface Mine {
  name: string
  address: string
  role: string
  secondFactor: boolean
  recoveryCodesLeft: number
  sessions: {
    id: number
    device: string
    address: string
    began: number
    used: number
    isThis: boolean
  }[]
}
const { answer: mine, problem, reload } = useAnswer<Mine>(() => '/api/me', { live: false })
const { form, faults, busy, submit } = useForm(passwordInput, { old: '', password: '' })
async function setPassword() {
  if (!(await submit((body) => changeAt('/api/me/password', { method: 'PUT', body })))) return
  Object.assign(form, { old: '', password: '' })
  notices.say('Your password is new. You are signed out everywhere else.')
  await reload()
}
async function end(id: number) {
  await act(`/api/me/sessions/${id}`, 'DELETE')
  await reload()
}
async function endOthers() {
  const done = await act<{ ended: number }>('/api/me/sessions', 'DELETE')
  if (done) notices.say(`${several(done.ended, 'session is', 'sessions are')} ended.`)
  await reload()
}
const others = computed(() => mine.value?.sessions.filter(({ isThis }) => !isThis) ?? [])
</script>

<template>
  <div class="mx-auto max-w-3xl px-6 py-5">
    <h1>Settings</h1>
    <SettingsNav />
    <p v-if="problem" class="fault mt-4" role="alert">{{ problem }}</p>
    <template v-if="mine">
      <section class="sheet mt-4 p-5" aria-labelledby="password-title">
        <h2 id="password-title">{{ mine.name }}</h2>
        <p class="muted mb-3">{{ mine.address }}, {{ mine.role }}</p>
        <form novalidate @submit.prevent="setPassword">
          <div class="grid grid-cols-2 gap-4">
            <FormField id="old-password" label="Your password now" :fault="faults.old"
              ><input
                id="old-password"
                v-model="form.old"
                class="field"
                type="password"
                autocomplete="current-password"
            /></FormField>
            <FormField
              id="new-password"
              label="New password"
              :fault="faults.password"
              hint="At least 12 characters."
              ><input
                id="new-password"
                v-model="form.password"
                class="field"
                type="password"
                autocomplete="new-password"
            /></FormField>
          </div>
          <p v-if="faults.form" class="fault mb-3" role="alert">{{ faults.form }}</p>
          <button class="btn" :disabled="busy">Set the new password</button>
        </form>
      </section>
      <SecondFactor
        :is-set="mine.secondFactor"
        :codes-left="mine.recoveryCodesLeft"
        @changed="reload"
      />
      <section class="sheet mt-4 p-5" aria-labelledby="sessions-title">
        <h2 id="sessions-title">Where you are signed in</h2>
        <p class="muted">
          A session ends by itself when nobody used it for 30 days, and after 90 days at most.
        </p>
        <table class="grid-table mt-2">
          <thead>
            <tr>
              <th>Device</th>
              <th>Last used</th>
              <th><span class="sr-only">What can be done</span></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in mine.sessions" :key="one.id">
              <td>
                {{ one.device }}<span v-if="one.isThis" class="muted">, here</span>
                <div class="muted small">{{ one.address }}, since {{ dayAndTime(one.began) }}</div>
              </td>
              <td class="muted">{{ dayAndTime(one.used) }}</td>
              <td class="num">
                <button
                  v-if="!one.isThis"
                  type="button"
                  class="btn btn-sm"
                  :aria-label="`End the session of ${one.device}, last used ${dayAndTime(one.used)}`"
                  @click="end(one.id)"
                >
                  End
                </button>
              </td>
            </tr>
          </tbody>
        </table>
        <button v-if="others.length" type="button" class="btn mt-3" @click="endOthers">
          End all others
        </button>
      </section>
    </template>
  </div>
</template>
