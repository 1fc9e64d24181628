<script setup lang="ts">
const props = defineProps<{ error: { statusCode?: number; message: string } }>()
const gone = computed(() => props.error.statusCode === 404)
</script>

<template>
  <main class="mx-auto mt-[14vh] max-w-lg px-6">
    <h1>{{ gone ? 'There is no such page' : 'Something went wrong here' }}</h1>
    <p class="muted mt-2">
      {{ gone ? 'The address may be mistyped, or what was here is deleted.' : error.message }}
    </p>
    <button class="btn mt-4" @click="clearError({ redirect: '/' })">Go to Today</button>
  </main>
</template>
