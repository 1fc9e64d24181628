<script setup lang="ts">
import { secondFactorInput } from '~~/shared/account-inputs'

/** A second factor: codes of an authenticator (TOTP), with recovery codes for when the phone is gone. */
defineProps<{ isSet: boolean; codesLeft: number }>()
const emit = defineEmits<{ changed: [] }>()
const notices = useNotices()
const made = ref<{ secret: string; picture: string } | null>(null)
const codes = ref<string[] | null>(null)
const { form, faults, busy, submit } = useForm(secondFactorInput, { secret: '', code: '' })
async function begin() {
  made.value = await act('/api/me/second-factor', 'POST')
  Object.assign(form, { secret: made.value?.secret ?? '', code: '' })
}
async function set() {
  await submit(async (body) => {
    const done = await changeAt<{ recoveryCodes: string[] }>('/api/me/second-factor', {
      method: 'PUT',
      body,
    })
    codes.value = done.recoveryCodes
    made.value = null
    emit('changed')
  })
}
async function remove() {
  if (!(await act('/api/me/second-factor', 'DELETE'))) return
  codes.value = null
  notices.say('Signing in takes your password alone now.')
  emit('changed')
}
/** The picture is ours, and drawn as a picture it can do nothing. */
const source = computed(
  () => made.value && `data:image/svg+xml,${encodeURIComponent(made.value.picture)}`,
)
</script>

<template>
  <section class="sheet mt-4 p-5" aria-labelledby="factor-title">
    <h2 id="factor-title">Second factor</h2>
    <p class="muted">
      {{
        isSet
          ? `Signing in takes a code of your authenticator, too. ${several(codesLeft, 'recovery code is', 'recovery codes are')} left.`
          : 'With one, your password alone lets nobody in: a code of an app on your phone is asked for, too.'
      }}
    </p>
    <div
      v-if="codes"
      class="mt-3 rounded-md border border-brass-500 bg-brass-100 px-3 py-2"
      role="status"
    >
      Keep these recovery codes; they are not shown again. Each lets you in once without your phone.
      <ul class="mt-2 grid grid-cols-2 gap-x-6 font-mono select-all">
        <li v-for="code in codes" :key="code">{{ code }}</li>
      </ul>
    </div>
    <form v-if="made" class="mt-3 flex gap-5" novalidate @submit.prevent="set">
      <img :src="source!" width="148" height="148" alt="The same secret as a code to scan" />
      <div class="min-w-0 flex-1">
        <p>
          Scan this with your authenticator, or type
          <code class="break-all select-all">{{ made.secret }}</code>
        </p>
        <FormField id="factor-code" class="mt-3" label="The code that it shows" :fault="faults.code"
          ><input
            id="factor-code"
            v-model="form.code"
            class="field w-40"
            autocomplete="one-time-code"
            inputmode="numeric"
        /></FormField>
        <p v-if="faults.form" class="fault mb-3" role="alert">{{ faults.form }}</p>
        <button class="btn btn-go" :disabled="busy">Set it</button>
        <button type="button" class="btn ml-2" @click="made = null">Cancel</button>
      </div>
    </form>
    <div v-else class="mt-3">
      <button type="button" class="btn" @click="begin">
        {{ isSet ? 'Set another…' : 'Set a second factor…' }}
      </button>
      <button v-if="isSet" type="button" class="btn btn-bad ml-2" @click="remove">Remove it</button>
    </div>
  </section>
</template>
