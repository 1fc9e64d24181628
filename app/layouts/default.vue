<script setup lang="ts">
const live = useLive()
const unsaved = useUnsaved()
/** A page that is closed with something unsaved asks first; what is on its way goes by itself. */
function beforeClosing(event: BeforeUnloadEvent) {
  if (unsaved.anythingKept) event.preventDefault()
}
onMounted(() => {
  live.begin()
  addEventListener('beforeunload', beforeClosing)
})
onUnmounted(() => {
  live.end()
  removeEventListener('beforeunload', beforeClosing)
})
</script>

<template>
  <div class="flex h-full flex-col">
    <a
      href="#content"
      class="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-sheet focus:p-2"
      >Go to the content</a
    >
    <TopBar />
    <main id="content" class="min-h-0 flex-1 overflow-auto" tabindex="0"><slot /></main>
    <CommandPalette />
    <KeysDialog />
    <ConfirmDialog />
  </div>
</template>
