<script setup lang="ts">
import { resetInput } from '~~/shared/account-inputs'

/** A new password, by a link that an owner made: its key stands behind the #, which is told to no server. */
const key = location.hash.slice(1)
const { form, faults, busy, submit } = useForm(resetInput, { key, password: '' })
const done = ref<string | null>(null)
async function set() {
  await submit(async (body) => {
    const got = await changeAt<{ address: string }>('/api/session/reset', { method: 'POST', body })
    done.value = got.address
  })
}
</script>

<template>
  <div>
    <h1 class="mb-4">A new password</h1>
    <div v-if="done" class="sheet p-5">
      <p>It is set, and you are signed out everywhere else.</p>
      <NuxtLink to="/sign-in" class="btn btn-go mt-4 inline-flex">Sign in as {{ done }}</NuxtLink>
    </div>
    <form v-else class="sheet p-5" novalidate @submit.prevent="set">
      <FormField
        id="password"
        label="New password"
        :fault="faults.password"
        hint="At least 12 characters. A few words that only you put together are good."
        ><input
          id="password"
          v-model="form.password"
          class="field"
          type="password"
          autocomplete="new-password"
      /></FormField>
      <p v-if="faults.key || faults.form" class="fault mb-3" role="alert">
        {{ faults.form ?? 'This link is not whole. Copy all of it.' }}
      </p>
      <button class="btn btn-go" :disabled="busy">Set the password</button>
    </form>
  </div>
</template>
