<script setup lang="ts">
/** A person's last twelve mailings: tall clicked, middle opened, low delivered, a dot not sent, a cross bounced. */
type Bar = 'clicked' | 'opened' | 'delivered' | 'not-sent' | 'bounced'
const props = defineProps<{ bars: Bar[] }>()
const padded = computed<Bar[]>(() => [
  ...Array.from({ length: Math.max(0, 12 - props.bars.length) }, () => 'not-sent' as const),
  ...props.bars,
])
const told = computed(() => {
  const of = (bar: Bar) => props.bars.filter((one) => one === bar).length
  return `Of the last ${props.bars.length} mailings ${of('clicked')} clicked, ${of('opened')} opened, ${of('bounced')} bounced`
})
</script>

<template>
  <svg width="86" height="18" viewBox="0 0 86 18" role="img" :aria-label="told">
    <template v-for="(bar, i) in padded" :key="i">
      <rect v-if="bar === 'clicked'" :x="i * 7 + 1" y="1" width="5" height="16" fill="#4b5a28" />
      <rect v-else-if="bar === 'opened'" :x="i * 7 + 1" y="8" width="5" height="9" fill="#98aa66" />
      <rect
        v-else-if="bar === 'delivered'"
        :x="i * 7 + 1"
        y="14"
        width="5"
        height="3"
        fill="#a7aea3"
      />
      <path
        v-else-if="bar === 'bounced'"
        :d="`M${i * 7 + 1} 12l5 5m0-5l-5 5`"
        stroke="#a5371f"
        stroke-width="1.5"
      />
      <circle v-else :cx="i * 7 + 3.5" cy="15.5" r="1" fill="#a7aea3" />
    </template>
  </svg>
</template>
