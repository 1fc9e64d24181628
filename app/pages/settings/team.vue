<script setup lang="ts">
import { roles, rolesInWords, type Role } from '~~/core/team'
import { userInput } from '~~/shared/account-inputs'

/** Who works here, and what they may. */
const session = useSession()
const notices = useNotices()
interface User {
  id: number
  name: string
  address: string
  role: Role
  secondFactor: boolean
}
const users = useAnswer<User[]>(() => '/api/users', { live: false })
const mayChange = computed(() => session.may('PUT /api/users/[id]'))
const adding = ref(false)
const empty = { name: '', address: '', password: '', role: 'writer' as Role }
const { form, faults, busy, submit } = useForm(userInput, { ...empty })
async function add() {
  const { name } = form
  if (!(await submit(() => changeAt('/api/users', { method: 'POST', body: { ...form } })))) return
  Object.assign(form, empty)
  adding.value = false
  await users.reload()
  notices.say(`${name} can sign in now. Tell them the password; they are not written to.`)
}
async function change(user: User, role: string) {
  if (await act(`/api/users/${user.id}`, 'PUT', { role })) {
    notices.say(
      `${user.name} is ${role === 'owner' || role === 'editor' ? 'an' : 'a'} ${role} now.`,
    )
    if (user.id === session.user?.id) await session.load()
  }
  await users.reload()
}
/** By user: a link that was just made. */
const link = ref<{ id: number; name: string; link: string } | null>(null)
async function reset({ id, name }: User) {
  const made = await act<{ link: string }>(`/api/users/${id}/reset`, 'POST')
  if (made) link.value = { id, name, link: made.link }
}
const leaving = ref<User | null>(null)
async function remove() {
  const user = leaving.value!
  leaving.value = null
  if (await act(`/api/users/${user.id}`, 'DELETE'))
    notices.say(`${user.name} can’t sign in any more. What they wrote stays.`)
  await users.reload()
}
</script>

<template>
  <div class="mx-auto max-w-3xl px-6 py-5">
    <h1>Settings</h1>
    <SettingsNav />
    <section class="sheet mt-4 p-5" aria-labelledby="users-title">
      <h2 id="users-title">People who work here</h2>
      <p v-if="users.problem.value" class="fault mt-2" role="alert">{{ users.problem.value }}</p>
      <table v-if="users.answer.value" class="grid-table mt-2">
        <thead>
          <tr>
            <th>Name</th>
            <th>Role</th>
            <th>Second factor</th>
            <th v-if="mayChange"><span class="sr-only">What can be done</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="user in users.answer.value" :key="user.id">
            <td>
              <b class="font-[600]">{{ user.name }}</b><span
                v-if="user.id === session.user?.id"
                class="muted"
                >, you</span
              >
              <div class="muted small">{{ user.address }}</div>
            </td>
            <td>
              <select
                v-if="mayChange"
                class="field w-auto"
                :value="user.role"
                :aria-label="`Role of ${user.name}`"
                @change="change(user, ($event.target as HTMLSelectElement).value)"
              >
                <option v-for="role in roles" :key="role" :value="role">{{ role }}</option>
              </select>
              <span v-else>{{ user.role }}</span>
            </td>
            <td class="muted">{{ user.secondFactor ? 'set' : 'none' }}</td>
            <td v-if="mayChange" class="num whitespace-nowrap">
              <template v-if="user.id !== session.user?.id">
                <button
                  type="button"
                  class="btn btn-sm"
                  :aria-label="`Link for a new password for ${user.name}`"
                  @click="reset(user)"
                >
                  New password…
                </button>
                <button
                  type="button"
                  class="btn btn-sm btn-bad ml-1"
                  :aria-label="`Remove ${user.name}`"
                  @click="leaving = user"
                >
                  Remove
                </button>
              </template>
            </td>
          </tr>
        </tbody>
      </table>
      <p
        v-if="link"
        class="mt-3 rounded-md border border-brass-500 bg-brass-100 px-3 py-2"
        role="status"
      >
        Give {{ link.name }} this link. It works once, for an hour, and signs them out everywhere:
        <code class="break-all select-all">{{ link.link }}</code>
      </p>
      <form v-if="adding" class="mt-4" novalidate @submit.prevent="add">
        <div class="grid grid-cols-2 gap-4">
          <FormField id="user-name" label="Name" :fault="faults.name"
            ><input id="user-name" v-model="form.name" class="field"
          /></FormField>
          <FormField id="user-address" label="Address" :fault="faults.address"
            ><input id="user-address" v-model="form.address" class="field" type="email"
          /></FormField>
          <FormField id="user-password" label="First password" :fault="faults.password"
            ><input
              id="user-password"
              v-model="form.password"
              class="field"
              type="password"
              autocomplete="new-password"
          /></FormField>
          <FormField id="user-role" label="Role" :fault="faults.role"
            ><select id="user-role" v-model="form.role" class="field">
              <option v-for="role in roles" :key="role" :value="role">{{ role }}</option>
            </select></FormField
          >
        </div>
        <p v-if="faults.form" class="fault mb-3" role="alert">{{ faults.form }}</p>
        <button class="btn btn-go" :disabled="busy">Let them in</button>
        <button type="button" class="btn ml-2" @click="adding = false">Cancel</button>
      </form>
      <button
        v-else-if="session.may('POST /api/users')"
        type="button"
        class="btn mt-3"
        @click="adding = true"
      >
        Let somebody in…
      </button>
    </section>
    <section class="sheet mt-4 p-5" aria-labelledby="roles-title">
      <h2 id="roles-title">Roles</h2>
      <dl class="mt-2 grid grid-cols-[6rem_1fr] gap-y-1">
        <template v-for="role in roles" :key="role">
          <dt class="font-[560]">{{ role }}</dt>
          <dd class="muted">{{ rolesInWords[role] }}</dd>
        </template>
      </dl>
    </section>
    <BaseDialog
      :open="leaving !== null"
      :title="`Remove ${leaving?.name}?`"
      @close="leaving = null"
    >
      <p>
        They are signed out everywhere and can’t sign in any more. Letters and comments that they
        wrote stay, in their name. You can let them in again later.
      </p>
      <template #actions>
        <button type="button" class="btn" @click="leaving = null">Cancel</button>
        <button type="button" class="btn btn-bad" @click="remove">Remove</button>
      </template>
    </BaseDialog>
  </div>
</template>
