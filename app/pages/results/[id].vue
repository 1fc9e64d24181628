<script setup lang="ts">
const route = useRoute()
</script>

<template><MailingResults :id="Number(route.params.id)" :key="String(route.params.id)" /></template>
