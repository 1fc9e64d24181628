<script setup lang="ts">
import type { Overruling } from '~~/core/proof'

/** An owner may let blockers pass, with a reason that is kept and seen; and take that back. */
const store = useMailing()
const session = useSession()
const notices = useNotices()
const asking = ref(false)
const reason = ref('')
const fault = ref('')
const passed = computed(() =>
  store.mailing?.overruled ? (JSON.parse(store.mailing.overruled) as Overruling) : null,
)
const { dayAndTime } = useTimes()
const at = computed(() => `/api/mailings/${store.mailing!.id}/overrule`)
async function pass() {
  fault.value = ''
  try {
    await changeAt(at.value, { method: 'POST', body: { reason: reason.value } })
    asking.value = false
    reason.value = ''
    notices.say('They block it no longer. The reason stands in the proof.')
  } catch (error) {
    fault.value = problemOf(error).message
  }
  await store.refresh()
}
async function takeBack() {
  await act(at.value, 'DELETE')
  await store.refresh()
}
const id = useId()
</script>

<template>
  <div v-if="store.mailing && store.canChange">
    <p
      v-if="passed"
      class="flex flex-wrap items-baseline gap-x-3 border-t border-line-soft px-3.5 py-2.5"
    >
      <span
        >{{ passed.byName }} let {{ several(passed.keys.length, 'blocker', 'blockers') }} pass
        {{ dayAndTime(passed.at) }}: “{{ passed.reason }}”</span
      >
      <button type="button" class="link" @click="takeBack">Revoke</button>
    </p>
    <p
      v-else-if="store.blockers && session.user?.role === 'owner'"
      class="border-t border-line-soft px-3.5 py-2.5"
    >
      <button type="button" class="link" @click="asking = true">Let it go all the same…</button>
    </p>
    <BaseDialog :open="asking" title="Let it go all the same?" @close="asking = false">
      <p>
        {{ several(store.blockers, 'blocker', 'blockers') }} will block this mailing no longer.
        Others, or the same in another place, still do. No audience and no postal address can’t be
        passed over.
      </p>
      <label :for="`${id}-reason`" class="mt-3 block">Why</label>
      <textarea :id="`${id}-reason`" v-model="reason" class="field mt-1" rows="2" maxlength="500" />
      <p v-if="fault" class="fault mt-2" role="alert">{{ fault }}</p>
      <template #actions
        ><button type="button" class="btn" @click="asking = false">Leave it blocked</button
        ><button type="button" class="btn btn-bad" @click="pass">Let it go</button></template
      >
    </BaseDialog>
  </div>
</template>
