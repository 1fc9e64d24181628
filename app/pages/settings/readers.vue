<script setup lang="ts">
import { isReaderLanguage, languageNames, type ReaderLanguage } from '~~/core/readers'

/** What readers are told, in each language, and how their page looks in it. The page's address names the language. */
const route = useRoute()
const language = computed<ReaderLanguage>(() =>
  isReaderLanguage(route.query.language) ? route.query.language : 'en',
)
</script>

<template>
  <div class="mx-auto max-w-[1180px] px-6 py-5">
    <h1>Settings</h1>
    <SettingsNav />
    <p class="muted mt-2">
      Everything that your readers see from Satchel itself: the links of a footer, unsubscribing,
      their own page, the mail that confirms. Write something else where you would say it otherwise;
      an empty field says what stands in it in grey.
    </p>
    <nav class="mt-3 flex flex-wrap gap-1.5" aria-label="Language">
      <NuxtLink
        v-for="(name, code) in languageNames"
        :key="code"
        :to="{ query: { language: code } }"
        class="btn btn-sm"
        :class="code === language && '!border-brass-500 !bg-brass-100'"
        :aria-current="code === language ? 'true' : undefined"
        :lang="code"
        >{{ name }}</NuxtLink
      >
    </nav>
    <ReaderWordsTable :key="language" :language="language" class="mt-3" />
  </div>
</template>
