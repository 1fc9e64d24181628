<script setup lang="ts">
import type { DomainCheck, RecordCheck } from '~~/core/authentication'

/** The three records of the sender's domain as a provider sees them, each with the one to publish. */
const { answer, reload } = useAnswer<{
  domain: string | null
  known: { check: DomainCheck; at: number } | null
}>(() => '/api/standing/domain')
const { dayAndTime } = useTimes()
const notices = useNotices()
const asking = ref(false)
const rows = computed(() => {
  const check = answer.value?.known?.check
  return check
    ? ([
        ['SPF', 'who may send', check.spf],
        ['DKIM', 'whose signature it is', check.dkim],
        ['DMARC', 'what becomes of the rest', check.dmarc],
      ] as const)
    : []
})
const verdictWords = { good: 'Good', missing: 'Missing', bad: 'Fails', unknown: 'Not known' }
const levels = { good: null, missing: 'caution', bad: 'blocker', unknown: 'note' } as const
async function askAnew() {
  asking.value = true
  const before = answer.value?.known?.at ?? 0
  await act('/api/standing/domain', 'POST')
  for (let i = 0; i < 20 && (answer.value?.known?.at ?? 0) <= before; i++) {
    await new Promise((done) => setTimeout(done, 400))
    await reload()
  }
  asking.value = false
}
/** What is to be done at a name, by what stands there. */
function howTo({ found, publish }: RecordCheck) {
  const many = found?.split('\n').length ?? 0
  if (many > 1)
    return `Delete the ${many} that stand there and publish one ${publish.type} record at`
  return many
    ? `Publish it instead, as the ${publish.type} record at`
    : `Publish a ${publish.type} record at`
}
async function copy({ publish }: RecordCheck) {
  await navigator.clipboard.writeText(publish.value)
  notices.say('The record’s value is copied.')
}
</script>

<template>
  <section v-if="answer?.domain" class="sheet mt-4" aria-label="Authentication">
    <div class="sheet-head">
      <h2>Authentication of {{ answer.domain }}</h2>
      <span class="flex items-center gap-3"
        ><span v-if="answer.known" class="muted small">asked {{ dayAndTime(answer.known.at) }}</span
        ><button
          v-may="'POST /api/standing/domain'"
          class="btn btn-sm"
          :disabled="asking"
          @click="askAnew"
        >
          {{ asking ? 'Asking…' : 'Ask again' }}
        </button></span
      >
    </div>
    <p v-if="!answer.known" class="muted p-4" role="status">
      The name servers are being asked; what they say will stand here.
    </p>
    <table v-else class="grid-table">
      <tbody>
        <tr v-for="[name, about, record] in rows" :key="name">
          <td class="w-44 align-top">
            <b class="font-semibold">{{ name }}</b><span class="muted small block">{{
              about
            }}</span>
          </td>
          <td class="w-28 align-top whitespace-nowrap">
            <MarkDot
              v-if="levels[record.verdict]"
              :level="levels[record.verdict]!"
              class="mr-1.5 inline"
            />
            <svg
              v-else
              class="mr-1.5 inline"
              width="11"
              height="11"
              viewBox="0 0 11 11"
              aria-hidden="true"
            >
              <circle cx="5.5" cy="5.5" r="5" fill="var(--good-600)" /></svg
            >{{ verdictWords[record.verdict] }}
          </td>
          <td class="align-top">
            {{ record.words }}
            <template v-if="record.verdict === 'missing' || record.verdict === 'bad'">
              <span class="muted small mt-1 block"
                >{{ howTo(record) }} <b>{{ record.publish.name }}</b></span
              >
              <span class="mt-0.5 flex items-start gap-2"
                ><code class="small min-w-0 break-all">{{ record.publish.value }}</code
                ><button class="btn btn-sm" @click="copy(record)">Copy</button></span
              >
            </template>
            <code v-else-if="record.found" class="muted small mt-0.5 block max-w-3xl truncate">{{
              record.found
            }}</code>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
