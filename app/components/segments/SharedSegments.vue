<script setup lang="ts">
/** How much of this segment is in each other one, and since when it has its size. */
const store = useSegment()
const total = computed(() => store.counts?.total ?? 0)
</script>

<template>
  <section class="sheet" aria-labelledby="shared-title">
    <div class="sheet-head">
      <h2 id="shared-title">Shared with other segments</h2>
      <NuxtLink
        v-if="store.saved && store.counts?.shared.length"
        class="link small"
        :to="{
          path: '/people/segments/compare',
          query: {
            of: [store.saved.id, ...store.counts.shared.slice(0, 2).map(({ id }) => id)].join(','),
          },
        }"
        >Compare</NuxtLink
      >
    </div>
    <p v-if="store.counts && store.counts.shared.length === 0" class="muted p-3.5">
      There is no other segment yet.
    </p>
    <ul v-else class="m-0 list-none space-y-1.5 p-3.5">
      <li
        v-for="one in store.counts?.shared"
        :key="one.id"
        class="grid grid-cols-[140px_1fr_52px] items-center gap-3"
      >
        <NuxtLink :to="`/people/segments/${one.id}`" class="truncate hover:underline">{{
          one.name
        }}</NuxtLink>
        <span class="h-[13px] rounded-sm border border-line" aria-hidden="true"
          ><span
            class="block h-full bg-canvas-600"
            :style="{ width: `${total ? (100 * one.n) / total : 0}%` }"
        /></span>
        <span class="num">{{ count(one.n) }}</span>
      </li>
    </ul>
  </section>
</template>
