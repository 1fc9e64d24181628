<script setup lang="ts">
import type { Handler } from '~~/core/team'

/** The pages of the settings. */
const session = useSession()
const pages: readonly { to: string; name: string; needs?: Handler }[] = [
  { to: '/settings', name: 'Account' },
  { to: '/settings/letterhead', name: 'Letterhead' },
  { to: '/settings/readers', name: 'Words for readers' },
  { to: '/settings/labels', name: 'Labels' },
  { to: '/settings/team', name: 'Team' },
  { to: '/settings/me', name: 'You' },
  { to: '/settings/kept', name: 'What is kept' },
  { to: '/settings/audit', name: 'Audit log', needs: 'GET /api/audit' },
]
const offered = computed(() => pages.filter(({ needs }) => !needs || session.may(needs)))
</script>

<template>
  <nav class="mt-1 flex gap-4" aria-label="Settings">
    <NuxtLink
      v-for="page in offered"
      :key="page.to"
      :to="page.to"
      class="py-1 font-[520] text-ink-600 hover:text-ink-900"
      exact-active-class="text-ink-900 underline decoration-dashed decoration-2 underline-offset-8"
      >{{ page.name }}</NuxtLink
    >
  </nav>
</template>
