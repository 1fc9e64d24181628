<script setup lang="ts">
/** What mailbox providers answered to those whom they did not simply take. */
const props = defineProps<{ mailing: number }>()
const { answer } = useAnswer<{ domain: string; state: string; answer: string; n: number }[]>(
  () => `/api/mailings/${props.mailing}/answers`,
)
const states: Record<string, string> = {
  deferred: 'deferred',
  failed: 'refused',
  bounced: 'bounced',
}
</script>

<template>
  <section v-if="answer?.length" class="sheet mt-4" aria-label="What providers answered">
    <div class="sheet-head"><h2>What providers answered</h2></div>
    <table class="grid-table">
      <tbody>
        <tr v-for="row in answer" :key="`${row.domain} ${row.state} ${row.answer}`">
          <td class="w-44 truncate">{{ row.domain }}</td>
          <td class="num w-20 font-semibold">{{ count(row.n) }}</td>
          <td class="w-24">{{ states[row.state] }}</td>
          <td class="muted">{{ row.answer }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
