<script setup lang="ts">
const parts = [
  ['fields', 'Fields'],
  ['tags', 'Tags'],
  ['lists', 'Lists'],
] as const
const route = useRoute()
const part = computed(() => String(route.query.part ?? 'fields'))
</script>

<template>
  <div>
    <h1>Fields, tags, lists</h1>
    <p class="muted mt-0.5">
      What is known of people, how you sort them, and what they can subscribe to.
    </p>
    <nav class="mt-3 flex gap-1" aria-label="Parts">
      <NuxtLink
        v-for="[key, name] in parts"
        :key="key"
        :to="{ query: { part: key } }"
        class="btn"
        :class="part === key && 'btn-go'"
        :aria-current="part === key ? 'page' : undefined"
        >{{ name }}</NuxtLink
      >
    </nav>
    <FieldsTable v-if="part === 'fields'" class="mt-3" />
    <TagsTable v-else-if="part === 'tags'" class="mt-3" />
    <ListsTable v-else class="mt-3" />
  </div>
</template>
