<script setup lang="ts">
import { signInInput } from '~~/shared/account-inputs'

const session = useSession()
const route = useRoute()
const { form, faults, busy, submit } = useForm(signInInput, { address: '', password: '' })
async function signIn() {
  if (!(await submit((values) => changeAt('/api/session', { method: 'POST', body: values }))))
    return
  await session.load()
  const to = String(route.query.to ?? '/')
  await navigateTo(/^\/(?!\/)/.test(to) ? to : '/')
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
      <p v-if="faults.form" class="fault mb-3" role="alert">{{ faults.form }}</p>
      <button class="btn btn-go" :disabled="busy">Sign in</button>
    </form>
  </div>
</template>
