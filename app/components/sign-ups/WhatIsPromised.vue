<script setup lang="ts">
import type { SignUpForm } from '~~/core/sign-ups'

/** What whoever confirms gets: a file that Satchel keeps, or a link. */
const store = useSignUp()
const promised = computed(() => store.form!.promised)
const set = (change: Partial<SignUpForm['promised']>) =>
  store.setForm({ promised: { ...promised.value, ...change } })
const language = computed(() => store.language)
type Kept = { id: number; name: string; weight: number }
/** What was uploaded here last, until the server says it of the form. */
const uploaded = shallowRef<Kept | null>(null)
const file = computed(() =>
  [uploaded.value, store.signUp!.file].find((one) => one?.id === promised.value.fileId),
)
const busy = ref(false)
const fault = ref('')
const MOST = 20 * 1024 * 1024
async function upload(event: Event) {
  const input = event.target as HTMLInputElement
  const [chosen] = input.files ?? []
  input.value = ''
  if (!chosen) return
  fault.value =
    chosen.size > MOST
      ? 'This file is larger than 20 MB. Put it on your site and name its address.'
      : ''
  if (fault.value) return
  busy.value = true
  const path = `/api/sign-ups/files?name=${encodeURIComponent(chosen.name)}`
  const kept = await act<Kept>(path, 'POST', chosen)
  busy.value = false
  if (!kept) return
  uploaded.value = kept
  set({ fileId: kept.id, url: '' })
}
const weight = (bytes: number) =>
  bytes < 1_000_000
    ? `${Math.max(1, Math.round(bytes / 1_000))} kB`
    : `${(bytes / 1_000_000).toFixed(1)} MB`
</script>

<template>
  <section class="sheet" aria-label="What was promised">
    <div class="sheet-head">
      <h2>What was promised</h2>
      <span class="muted small">by mail and on the page, once it is confirmed</span>
    </div>
    <fieldset class="grid gap-2.5 p-4" :disabled="!store.canChange">
      <div v-if="promised.fileId !== null" class="flex min-h-9 items-center gap-3">
        <span class="min-w-0 truncate font-[560]">{{ file?.name ?? 'A file that is gone' }}</span>
        <span v-if="file" class="muted small whitespace-nowrap">{{ weight(file.weight) }}</span>
        <button type="button" class="link small ml-auto" @click="set({ fileId: null })">
          Remove
        </button>
      </div>
      <template v-else>
        <div class="flex items-center gap-3">
          <label class="btn btn-sm" :class="{ 'opacity-60': busy }"
            >{{ busy ? 'Uploading…' : 'Upload a file'
            }}<input type="file" class="sr-only" :disabled="busy" @change="upload" /></label
          ><span class="muted small">at most 20 MB; only who has confirmed gets a link to it</span>
        </div>
        <label class="grid gap-1"
          ><span class="muted small">Or a link</span
          ><KeptInput
            class="field"
            type="url"
            :value="promised.url"
            maxlength="2000"
            placeholder="https://"
            @taken="set({ url: $event.trim() })"
        /></label>
      </template>
      <p v-if="fault" class="fault small" role="alert">{{ fault }}</p>
      <label class="grid gap-1"
        ><span class="muted small">What it is called</span
        ><KeptInput
          class="field"
          :value="promised.name[language] ?? ''"
          maxlength="300"
          @taken="set({ name: { ...promised.name, [language]: $event } })"
      /></label>
      <p class="muted small">
        Where a box says “one mail only”, it goes to those who ticked that box; else to everybody
        who confirms.
      </p>
    </fieldset>
  </section>
</template>
