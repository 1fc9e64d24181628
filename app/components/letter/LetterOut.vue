<script setup lang="ts">
/** The letter exported as a file, and its web version. */
const store = useMailing()
const id = computed(() => store.mailing!.id)
const open = ref(false)
const web = ref<string | null>(null)
const files = [
  ['html', 'HTML', 'styles inlined'],
  ['mjml', 'MJML', 'to go on designing in another program'],
  ['eml', 'Message', 'EML, as a mail program saves it'],
  ['text', 'Plain text', 'as it is read without HTML'],
  ['json', 'JSON', 'the document itself'],
] as const
watch(open, async (now) => {
  if (now)
    web.value =
      (await ask<{ url: string | null }>(`/api/mailings/${id.value}/web-version`))?.url ?? null
})
async function setWeb(on: boolean) {
  const got = await act<{ url: string | null }>(`/api/mailings/${id.value}/web-version`, 'PUT', {
    on,
  })
  if (!got) return
  web.value = got.url
  useNotices().say(
    on
      ? 'The letter has a public address. Whoever has it can read the letter.'
      : 'The public address is gone for good.',
  )
}
async function copy() {
  await navigator.clipboard.writeText(web.value!)
  useNotices().say('Copied.')
}
</script>

<template>
  <div class="relative" @keydown.escape="open = false">
    <button
      type="button"
      class="btn btn-sm"
      :aria-expanded="open"
      aria-controls="letter-out"
      @click="open = !open"
    >
      Export
    </button>
    <div
      v-if="open"
      id="letter-out"
      class="floats absolute right-0 z-30 mt-1 w-[320px] rounded-md border border-line bg-sheet p-3"
    >
      <ul class="m-0 list-none p-0">
        <li v-for="[format, name, about] in files" :key="format">
          <a
            class="flex justify-between rounded px-2 py-1 hover:bg-canvas-50"
            :href="`/api/mailings/${id}/source?format=${format}`"
            ><span class="font-[560]">{{ name }}</span
            ><span class="muted small">{{ about }}</span></a
          >
        </li>
      </ul>
      <div class="mt-2 border-t border-line-soft px-2 pt-2">
        <b class="font-[560]">Web version</b>
        <template v-if="web">
          <p class="small mt-1 break-all">
            <a class="link" :href="web" target="_blank" rel="noopener">{{ web }}</a>
          </p>
          <div class="mt-2 flex gap-2">
            <button type="button" class="btn btn-sm" @click="copy">Copy</button>
            <button
              v-may="'PUT /api/mailings/[id]/web-version'"
              type="button"
              class="btn btn-sm"
              @click="setWeb(false)"
            >
              Remove the web version
            </button>
          </div>
        </template>
        <template v-else>
          <p class="muted small mt-1">
            A page that anybody with its address can read: for nobody in particular, without what is
            shown to some.
          </p>
          <button
            v-may="'PUT /api/mailings/[id]/web-version'"
            type="button"
            class="btn btn-sm mt-2"
            @click="setWeb(true)"
          >
            Make a web version
          </button>
        </template>
      </div>
    </div>
  </div>
</template>
