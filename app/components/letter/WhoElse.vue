<script setup lang="ts">
/** Who else has this letter open. */
const presence = usePresence()
const initials = (name: string) =>
  name
    .split(/\s+/)
    .slice(0, 2)
    .map((word) => word.charAt(0))
    .join('') || '?'
</script>

<template>
  <ul
    v-if="presence.others.length"
    class="m-0 flex list-none items-center gap-1 p-0"
    aria-label="Also here"
  >
    <li
      v-for="one in presence.others"
      :key="one.tab"
      class="flex h-6 items-center rounded border border-dashed border-brass-500 bg-brass-100 px-1.5 text-[11.5px] font-semibold"
      :title="`${one.name} has this letter open, too`"
    >
      <span aria-hidden="true">{{ initials(one.name) }}</span><span class="sr-only">{{
        one.name
      }}</span>
    </li>
  </ul>
</template>
