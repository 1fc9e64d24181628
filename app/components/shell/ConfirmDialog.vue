<script setup lang="ts">
import { confirmInput } from '~~/shared/account-inputs'

/** The password again, before something sensitive. What was to be done is done afterwards. */
const confirming = useConfirming()
const { form, faults, busy, submit } = useForm(confirmInput, { password: '' })
async function give() {
  const given = await submit((body) => changeAt('/api/session/confirm', { method: 'POST', body }))
  if (!given) return
  form.password = ''
  confirming.end(true)
}
function cancel() {
  form.password = ''
  confirming.end(false)
}
</script>

<template>
  <BaseDialog :open="confirming.asked" title="Give your password again" @close="cancel">
    <p class="muted mb-3">
      What you are about to do is sensitive, and your password was not given for an hour.
    </p>
    <form id="confirm-form" novalidate @submit.prevent="give">
      <FormField id="confirm-password" label="Your password" :fault="faults.password"
        ><input
          id="confirm-password"
          v-model="form.password"
          class="field"
          type="password"
          autocomplete="current-password"
      /></FormField>
      <p v-if="faults.form" class="fault" role="alert">{{ faults.form }}</p>
    </form>
    <template #actions>
      <button type="button" class="btn" @click="cancel">Cancel</button>
      <button form="confirm-form" class="btn btn-go" :disabled="busy">Go on</button>
    </template>
  </BaseDialog>
</template>
