<script setup lang="ts">
/** Copies of the letter, to look at in real mailboxes before anybody else gets it. */
const store = useMailing()
const session = useSession()
const to = ref(session.user?.address ?? '')
const n = ref(0)
const job = ref<number | null>(null)
const fault = ref('')
const state = useAnswer<{ state: string; done: number; total: number; error: string | null }>(() =>
  job.value === null ? null : `/api/jobs/${job.value}`,
)
const reading = useAnswer<{ reader: { name: string; address: string } | null; count: number }>(
  () => (store.mailing ? `/api/mailings/${store.mailing.id}/read-as?n=${n.value}` : null),
)
const under = computed(() => ['waiting', 'running'].includes(state.answer.value?.state ?? ''))
async function send() {
  fault.value = ''
  try {
    const made = await changeAt<{ job: number }>(
      `/api/mailings/${store.mailing!.id}/copies?n=${n.value}`,
      {
        method: 'POST',
        body: { to: to.value.split(/[\s,;]+/).filter(Boolean) },
      },
    )
    job.value = made.job
  } catch (error) {
    fault.value = problemOf(error).message
  }
}
const reader = computed(() => {
  const { reader: whom } = reading.answer.value ?? {}
  return whom ? whom.name || whom.address : 'anybody'
})
</script>

<template>
  <form class="sheet mt-4 p-4" novalidate @submit.prevent="send">
    <h2>Send me a copy</h2>
    <p class="muted mt-0.5">
      As a reader gets it, with “Copy:” before the subject. Its links are not counted.
    </p>
    <div class="mt-3 flex flex-wrap items-end gap-3">
      <div class="min-w-64 flex-1">
        <label for="copy-to" class="mb-1 block font-[560]">To</label>
        <input
          id="copy-to"
          v-model="to"
          class="field"
          placeholder="addresses, with a comma between them"
          :aria-describedby="fault ? 'copy-fault' : undefined"
        />
      </div>
      <div>
        <span class="mb-1 block font-[560]">As {{ reader }} reads it</span>
        <span class="flex gap-1">
          <button
            type="button"
            class="btn btn-sm"
            aria-label="As the reader before"
            :disabled="n === 0"
            @click="n--"
          >
            ‹</button
          ><button type="button" class="btn btn-sm" aria-label="As the next reader" @click="n++">
            ›
          </button>
        </span>
      </div>
      <button class="btn btn-go" :disabled="under || !to.trim()">Send it</button>
    </div>
    <p v-if="fault" id="copy-fault" class="fault mt-2" role="alert">{{ fault }}</p>
    <p v-if="state.answer.value" class="mt-2" role="status">
      <template v-if="under">On its way…</template
      ><template v-else-if="state.answer.value.state === 'done'"
        >Sent: {{ several(state.answer.value.total, 'copy', 'copies') }}.</template
      ><span v-else class="fault">Not sent. {{ state.answer.value.error }}</span>
    </p>
  </form>
</template>
