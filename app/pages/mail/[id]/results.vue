<script setup lang="ts">
const route = useRoute()
</script>

<template>
  <div class="px-[22px] py-4"><MailingResults :id="Number(route.params.id)" /></div>
</template>
