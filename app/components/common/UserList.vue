<script setup lang="ts">
import { userInput } from '~~/shared/account-inputs'

/** Who works here, and letting somebody in. */
const session = useSession()
const users = useAnswer<{ id: number; name: string; address: string; role: string }[]>(
  () => '/api/users',
  { live: false },
)
const adding = ref(false)
const { form, faults, busy, submit } = useForm(userInput, { name: '', address: '', password: '' })
async function add() {
  const { name } = form
  if (!(await submit(() => changeAt('/api/users', { method: 'POST', body: { ...form } })))) return
  Object.assign(form, { name: '', address: '', password: '' })
  adding.value = false
  await users.reload()
  useNotices().say(`${name} can sign in now. Tell them the password; they are not written to.`)
}
</script>

<template>
  <section class="sheet mt-4 p-5" aria-labelledby="users-title">
    <h2 id="users-title">People who work here</h2>
    <table v-if="users.answer.value" class="grid-table mt-2">
      <tbody>
        <tr v-for="user in users.answer.value" :key="user.id">
          <td class="font-semibold">{{ user.name }}</td>
          <td class="muted">{{ user.address }}</td>
          <td class="muted">{{ user.role }}</td>
        </tr>
      </tbody>
    </table>
    <template v-if="session.user?.role === 'owner'">
      <form v-if="adding" class="mt-3" novalidate @submit.prevent="add">
        <div class="grid grid-cols-2 gap-4">
          <FormField id="user-name" label="Name" :fault="faults.name"
            ><input id="user-name" v-model="form.name" class="field"
          /></FormField>
          <FormField id="user-address" label="Address" :fault="faults.address"
            ><input id="user-address" v-model="form.address" class="field" type="email"
          /></FormField>
        </div>
        <FormField id="user-password" label="First password" :fault="faults.password"
          ><input
            id="user-password"
            v-model="form.password"
            class="field"
            type="password"
            autocomplete="new-password"
        /></FormField>
        <p v-if="faults.form" class="fault mb-3" role="alert">{{ faults.form }}</p>
        <button class="btn btn-go" :disabled="busy">Let them in</button>
        <button type="button" class="btn ml-2" @click="adding = false">Cancel</button>
      </form>
      <button v-else type="button" class="btn mt-3" @click="adding = true">Let somebody in…</button>
    </template>
  </section>
</template>
