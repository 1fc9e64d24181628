<script setup lang="ts">
import type { FetchError } from 'ofetch'
import { signInInput } from '~~/shared/account-inputs'

const session = useSession()
const route = useRoute()
const { form, faults, busy, submit } = useForm(signInInput, { address: '', password: '', code: '' })
/** Asked for once address and password are right, where there is a second factor. */
const wantsCode = ref(false)
const codeField = useTemplateRef<HTMLInputElement>('code')
async function signIn() {
  const send = (body: object) => changeAt('/api/session', { method: 'POST', body })
  const tried = await submit((values) =>
    send(values).catch((error: FetchError<{ data?: { secondFactor?: boolean } }>) => {
      wantsCode.value ||= error.data?.data?.secondFactor === true
      throw error
    }),
  )
  if (!tried) {
    await nextTick()
    codeField.value?.focus()
    return
  }
  await session.load()
  const to = String(route.query.to ?? '/')
  await goTo(/^\/(?!\/)/.test(to) ? to : '/')
}
</script>

<template>
  <div>
    <h1 class="mb-4">Sign in to Satchel</h1>
    <form class="sheet p-5" novalidate @submit.prevent="signIn">
      <FormField id="address" label="E-mail address" :fault="faults.address"
        ><input
          id="address"
          v-model="form.address"
          class="field"
          type="email"
          autocomplete="username"
      /></FormField>
      <FormField id="password" label="Password" :fault="faults.password"
        ><input
          id="password"
          v-model="form.password"
          class="field"
          type="password"
          autocomplete="current-password"
      /></FormField>
      <FormField
        v-if="wantsCode"
        id="code"
        label="Code of your second factor"
        :fault="faults.code"
        hint="Six digits from your authenticator, or one of your recovery codes."
        ><input
          id="code"
          ref="code"
          v-model="form.code"
          class="field"
          autocomplete="one-time-code"
          inputmode="text"
      /></FormField>
      <p v-if="faults.form" class="fault mb-3" role="alert">{{ faults.form }}</p>
      <button class="btn btn-go" :disabled="busy">Sign in</button>
    </form>
  </div>
</template>
