<script setup lang="ts">
import type { Waiting } from '~~/core/results'

const props = defineProps<{ waiting: Waiting[] }>()
function held(blockers: string[]) {
  if (!blockers.length) return 'What blocked it is mended. It goes out when you say so.'
  return `${blockers.length} ${blockers.length === 1 ? 'blocker' : 'blockers'}: ${blockers.map((title) => title.replace(/^Link/, 'a link')).join('; ')}.`
}
const items = computed(() =>
  props.waiting.map((one) => {
    switch (one.kind) {
      case 'held':
        return one.by === 'proof'
          ? {
              key: `h${one.mailing.id}`,
              level: 'blocker' as const,
              title: `“${one.mailing.name}” is blocked by its proof`,
              detail: held(one.blockers),
              label: one.blockers.length ? 'Open the proof' : 'Dispatch it',
              to: `/mail/${one.mailing.id}/${one.blockers.length ? 'proof' : 'dispatch'}`,
            }
          : {
              key: `h${one.mailing.id}`,
              level: 'caution' as const,
              title: `“${one.mailing.name}” ${one.by === 'line' ? 'stopped by itself' : 'is paused'}`,
              detail: `${one.by === 'line' ? `${one.note ?? ''} ` : ''}${count(one.mailing.delivered)} of ${count(one.mailing.recipients)} have it. The rest waits until you resume it.`,
              label: 'Open dispatch',
              to: `/mail/${one.mailing.id}/dispatch`,
            }
      case 'stuck':
        return {
          key: `s${one.mailing.id}`,
          level: 'caution' as const,
          title: `“${one.mailing.name}” waits for the mail server`,
          detail: one.note ?? '',
          label: 'Look',
          to: `/mail/${one.mailing.id}/dispatch`,
        }
      case 'bounces':
        return {
          key: `b${one.domain}`,
          level: 'caution' as const,
          title: `Bounces at ${one.domain} are ${percent(one.rate)}, over the 2% line`,
          detail: `${count(one.bounced)} of ${count(one.tried)} in 7 days. Addresses that are dead have been suppressed; see where they came from.`,
          label: 'Look',
          to: '/standing',
        }
      case 'uncertain':
        return {
          key: `u${one.mailing.id}`,
          level: 'caution' as const,
          title: `${people(one.count)} may or may not have “${one.mailing.name}”`,
          detail:
            'The conversation with the mail server broke off before its answer. They are mailed again only if you say so.',
          label: 'Decide',
          to: `/mail/${one.mailing.id}/dispatch`,
        }
      case 'sign-up':
        return {
          key: `f${one.id}`,
          level: 'note' as const,
          title: `${count(one.toLook)} came by “${one.name}” and ${one.toLook === 1 ? 'is' : 'are'} doubtful`,
          detail:
            'They are mailed nothing. Let them through or drop them; after 14 days they go by themselves.',
          label: 'Look',
          to: `/sign-ups/${one.id}/results`,
        }
      case 'import':
        return {
          key: `i${one.id}`,
          level: 'note' as const,
          title: `${count(one.refused)} of ${count(one.rows)} rows of “${one.name}” were refused`,
          detail: 'Each has its reason. Export them as CSV, mend them, and import that file.',
          label: 'See the rows',
          to: `/people/imports/${one.id}`,
        }
    }
  }),
)
</script>

<template>
  <div class="sheet">
    <div class="sheet-head">
      <h2>Waiting for you</h2>
      <span class="small muted">{{ items.length }}</span>
    </div>
    <p v-if="!items.length" class="muted p-4">
      Nothing waits. What is blocked, stuck or doubtful will stand here, each with its one action.
    </p>
    <div
      v-for="item in items"
      :key="item.key"
      class="grid grid-cols-[18px_1fr_auto] items-start gap-2.5 border-t border-line-soft px-3.5 py-2.5 first-of-type:border-0"
    >
      <MarkDot :level="item.level" />
      <div>
        <b class="font-semibold">{{ item.title }}</b>
        <p class="muted small">{{ item.detail }}</p>
      </div>
      <NuxtLink :to="item.to" class="btn btn-sm">{{ item.label }}</NuxtLink>
    </div>
  </div>
</template>
