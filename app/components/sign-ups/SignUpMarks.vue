<script setup lang="ts">
/** What keeps the next version from going live, and what should be looked at; each leads to its part. */
const store = useSignUp()
const of = computed(() => store.signUp!)
const next = computed(() => (of.value.versions[0]?.version ?? 0) + 1)
const tested = computed(() => of.value.test?.versions.join(' and ') ?? null)
function show(partId: string | null) {
  if (!partId) return
  store.shownState = 'first'
  store.chosen = partId
}
</script>

<template>
  <section class="border-b border-line px-4 py-3" aria-label="Before it can go live">
    <h2 v-if="store.published && !of.marks.length">
      {{ tested ? `Versions ${tested} are tested` : `Version ${of.liveVersion} is published` }}
    </h2>
    <h2 v-else>Before version {{ next }} can go live</h2>
    <p v-if="store.published && !of.marks.length" class="muted mt-1.5">
      {{
        tested
          ? 'Visitors see one of them by lot. Publishing, or keeping one under Results, ends the test.'
          : 'Nothing has changed since. What you change here stands in public once you publish it.'
      }}
    </p>
    <p v-else-if="!of.marks.length" class="muted mt-1.5">Nothing keeps it.</p>
    <ul v-else class="m-0 mt-1.5 grid list-none gap-2 p-0">
      <li v-for="mark in of.marks" :key="mark.check + mark.title">
        <component
          :is="mark.partId ? 'button' : 'div'"
          :type="mark.partId ? 'button' : undefined"
          class="flex w-full gap-2 rounded text-left"
          :class="mark.partId && 'hover:bg-canvas-50'"
          @click="show(mark.partId)"
        >
          <MarkDot :level="mark.level" />
          <span class="min-w-0"
            ><b class="block font-[600]">{{ mark.title }}</b
            ><span class="muted small">{{ mark.detail }}</span></span
          >
        </component>
      </li>
    </ul>
  </section>
</template>
