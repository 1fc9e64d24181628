<script setup lang="ts">
/** What the proof says of the open mailing: held, free, or unknown, each with its own shape and word. */
const store = useMailing()
</script>

<template>
  <span class="inline-flex items-center gap-1.5" role="status">
    <template v-if="store.proofState === 'unknown'"
      ><svg width="11" height="11" viewBox="0 0 11 11" aria-hidden="true">
        <circle
          cx="5.5"
          cy="5.5"
          r="4.5"
          fill="none"
          stroke="#667064"
          stroke-width="1.5"
          stroke-dasharray="2.4 2.2"
        /></svg
      ><span class="muted">{{
        store.proofProblem
          ? `The proof can’t be asked. ${store.proofProblem}`
          : 'The proof is being made'
      }}</span></template
    ><template v-else-if="store.proofState === 'holds'"
      ><MarkDot level="blocker" />{{
        `Blocked: ${several(store.blockers, 'blocker', 'blockers')}`
      }}</template
    ><template v-else
      ><svg width="11" height="11" viewBox="0 0 11 11" aria-hidden="true">
        <circle cx="5.5" cy="5.5" r="4.5" fill="#4b5a28" /></svg
      >Nothing blocks it</template
    >
  </span>
</template>
