<script setup lang="ts">
import { ownerInput } from '~~/shared/account-inputs'

const session = useSession()
const route = useRoute()
const { form, faults, busy, submit } = useForm(ownerInput, {
  name: '',
  address: '',
  password: '',
  code: String(route.query.code ?? ''),
  accountName: '',
  zone: Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC',
})
async function make() {
  if (!(await submit((values) => changeAt('/api/owner', { method: 'POST', body: values })))) return
  await session.load()
  await goTo('/')
}
</script>

<template>
  <div>
    <h1>Welcome to Satchel</h1>
    <p class="muted mt-1 mb-4">
      Nobody has an account here yet. This makes yours; you will be its owner.
    </p>
    <form class="sheet p-5" novalidate @submit.prevent="make">
      <FormField id="name" label="Your name" :fault="faults.name"
        ><input id="name" v-model="form.name" class="field" autocomplete="name"
      /></FormField>
      <FormField id="address" label="Your e-mail address" :fault="faults.address"
        ><input
          id="address"
          v-model="form.address"
          class="field"
          type="email"
          autocomplete="username"
      /></FormField>
      <FormField
        id="password"
        label="Password"
        :fault="faults.password"
        hint="At least 12 characters."
        ><input
          id="password"
          v-model="form.password"
          class="field"
          type="password"
          autocomplete="new-password"
      /></FormField>
      <FormField
        id="code"
        label="Setup code"
        :fault="faults.code"
        hint="Satchel printed it when it was started; it shows that this Satchel is yours."
        ><input id="code" v-model="form.code" class="field" autocomplete="off" spellcheck="false"
      /></FormField>
      <FormField id="accountName" label="What your readers know you by" :fault="faults.accountName"
        ><input
          id="accountName"
          v-model="form.accountName"
          class="field"
          autocomplete="organization"
      /></FormField>
      <FormField
        id="zone"
        label="Time zone"
        :fault="faults.zone"
        hint="Days and hours are those of this zone."
        ><ZoneField id="zone" v-model="form.zone"
      /></FormField>
      <p v-if="faults.form" class="fault mb-3" role="alert">{{ faults.form }}</p>
      <button class="btn btn-go" :disabled="busy">Make the account</button>
    </form>
  </div>
</template>
