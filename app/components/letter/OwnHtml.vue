<script setup lang="ts">
/** An author's own HTML as it goes out: cleaned, and apart from the looks of the page around it. */
const props = defineProps<{ html: string; accent: string }>()
const host = ref<HTMLElement | null>(null)
const cleaner = shallowRef<((html: string) => string) | null>(null)
onMounted(async () => {
  host.value!.attachShadow({ mode: 'open' })
  const { cleanHtml } = await import('~~/core/letters/rendering/raw-html')
  cleaner.value = (html) => cleanHtml(html)
})
watch([() => props.html, () => props.accent, cleaner], ([html, accent, clean]) => {
  if (clean)
    host.value!.shadowRoot!.innerHTML = `<style>a { color: ${accent}; } p { margin: 0 0 12px; } ul, ol { margin: 0 0 12px; padding-left: 22px; } table, td { border-collapse: collapse; } img { border: 0; height: auto; line-height: 100%; outline: none; text-decoration: none; }</style>${clean(html)}`
})
</script>

<template>
  <div ref="host" inert />
</template>
