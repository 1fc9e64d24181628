<script setup lang="ts">
const session = useSession()
</script>

<template>
  <NuxtLayout :name="session.user ? 'default' : 'plain'">
    <NuxtPage />
  </NuxtLayout>
  <NoticeList />
</template>
