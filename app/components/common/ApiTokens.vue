<script setup lang="ts">
/** Tokens for programs that bring people, events and orders. Each is shown once, when it is made. */
const tokens = useAnswer<
  { id: number; name: string; created_at: number; last_used_at: number | null }[]
>(() => '/api/tokens', { live: false })
const { date, dayAndTime } = useTimes()
const session = useSession()
const name = ref('')
const made = ref<string | null>(null)
async function make() {
  const got = await act<{ token: string }>('/api/tokens', 'POST', { name: name.value })
  if (!got) return
  made.value = got.token
  name.value = ''
  await tokens.reload()
}
async function revoke(id: number) {
  await act(`/api/tokens/${id}`, 'DELETE')
  useNotices().say('The token is revoked. Programs that use it are refused from now on.')
  await tokens.reload()
}
</script>

<template>
  <section class="sheet mt-4 p-5" aria-labelledby="tokens-title">
    <h2 id="tokens-title">Programs</h2>
    <p class="muted">
      A shop or site brings people, events and orders with a token:
      <a class="link" href="/api/v1/openapi.json">{{ session.url }}/api/v1</a>
    </p>
    <table v-if="tokens.answer.value?.length" class="grid-table mt-2">
      <tbody>
        <tr v-for="token in tokens.answer.value" :key="token.id">
          <td class="font-semibold">{{ token.name }}</td>
          <td class="muted">made {{ date(token.created_at) }}</td>
          <td class="muted">
            {{
              token.last_used_at === null
                ? 'never used'
                : `last used ${dayAndTime(token.last_used_at)}`
            }}
          </td>
          <td class="num">
            <button type="button" class="btn btn-sm btn-bad" @click="revoke(token.id)">
              Revoke
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <p
      v-if="made"
      class="mt-3 rounded-md border border-brass-500 bg-brass-100 px-3 py-2"
      role="status"
    >
      Keep this token now; it is not shown again:
      <code class="break-all select-all">{{ made }}</code>
    </p>
    <form class="mt-3 flex max-w-md gap-2" @submit.prevent="make">
      <input
        v-model="name"
        class="field"
        aria-label="Which program it is for"
        placeholder="Which program it is for"
        maxlength="100"
      />
      <button class="btn" :disabled="!name.trim()">Make a token</button>
    </form>
  </section>
</template>
