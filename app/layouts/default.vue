<script setup lang="ts">
const live = useLive()
onMounted(() => live.begin())
onUnmounted(() => live.end())
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
  </div>
</template>
