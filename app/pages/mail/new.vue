<script setup lang="ts">
import { findTemplates, purposes } from '~~/core/letters/templates'
import type { OwnTemplate } from '~~/core/letters'

/** What to start a letter from: a template, an earlier mailing, or an empty page. */
interface Earlier {
  id: number
  name: string
  subject: string
  state: string
}
const route = useRoute()
const words = ref('')
const purpose = computed(() => purposes.find((one) => one === route.query.for) ?? null)
const found = computed(() => findTemplates(words.value, purpose.value))
const own = useAnswer<OwnTemplate[]>(() => '/api/templates', { live: false })
const ownFound = computed(() =>
  purpose.value
    ? []
    : (own.answer.value ?? []).filter(({ name, about }) =>
        `${name} ${about}`.toLowerCase().includes(words.value.toLowerCase()),
      ),
)
const bringing = ref(false)
/** A letter from a file; what could not be understood is said, once the letter is open. */
async function bring(file: File | undefined) {
  if (!file) return
  const goOn = wayOn()
  bringing.value = true
  const made = await act<{ id: number; notUnderstood: string[] }>(
    `/api/mailings/from-file?name=${encodeURIComponent(file.name)}`,
    'POST',
    file,
  )
  bringing.value = false
  if (!made) return
  await goOn(`/mail/${made.id}/letter`, 'The letter of the file is there.')
  if (made.notUnderstood.length)
    useNotices().say(
      `Look through it: ${made.notUnderstood.join('; ')}. What a letter can’t hold stands as HTML, cleaned.`,
    )
}
async function removeOwn({ id, name }: OwnTemplate) {
  if (!(await act(`/api/templates/own/${id}`, 'DELETE'))) return
  await own.reload()
  useNotices().say(`The template “${name}” is gone. Letters made from it stay.`, {
    label: 'Undo',
    run: () => void act(`/api/templates/own/${id}/restore`, 'POST').then(own.reload),
  })
}
const { answer: mailings } = useAnswer<Earlier[]>(() => '/api/mailings', { live: false })
const earlier = computed(() =>
  (mailings.value ?? [])
    .filter(({ name, subject }) =>
      `${name} ${subject}`.toLowerCase().includes(words.value.toLowerCase()),
    )
    .slice(0, 8),
)
async function from(mailing: Earlier) {
  const goOn = wayOn()
  const made = await act<{ id: number }>(`/api/mailings/${mailing.id}/duplicate`, 'POST')
  if (made) await goOn(`/mail/${made.id}/letter`, 'The copy is made.')
}
</script>

<template>
  <div class="mx-auto max-w-[1180px] px-6 py-5">
    <div class="flex flex-wrap items-end justify-between gap-4">
      <div>
        <h1>Write a letter</h1>
        <p class="muted mt-0.5">Start from something. All of it can be changed.</p>
      </div>
      <input
        v-model="words"
        class="field w-72"
        type="search"
        aria-label="Find something to start from"
        placeholder="what for: “thanks”, “event”, “cart”"
      />
    </div>
    <nav class="mt-4 flex flex-wrap gap-1.5" aria-label="What for">
      <NuxtLink
        v-for="one in [null, ...purposes]"
        :key="one ?? 'all'"
        :to="{ query: one ? { for: one } : {} }"
        class="min-h-7 rounded border border-line px-3 py-0.5"
        :class="purpose === one ? 'bg-canvas-200 font-semibold' : 'bg-sheet hover:bg-canvas-50'"
        :aria-current="purpose === one ? 'true' : undefined"
        >{{ one ?? 'Everything' }}</NuxtLink
      >
    </nav>
    <div class="mt-4 grid grid-cols-[1fr_280px] items-start gap-5">
      <div>
        <div class="grid grid-cols-3 gap-4">
          <TemplateCard
            v-if="!words && !purpose"
            path="/api/templates/start"
            name="The usual start"
            about="A heading, a greeting by name, one button"
            @choose="startLetter('start')"
          />
          <div v-for="one in ownFound" :key="`own-${one.id}`" class="relative">
            <TemplateCard
              class="h-full w-full"
              :path="`/api/templates/own-${one.id}`"
              :name="one.name"
              :about="one.about ? `Your own: ${one.about}` : 'Your own'"
              @choose="startLetter(`own-${one.id}`)"
            />
            <button
              type="button"
              class="btn btn-sm absolute top-1.5 right-1.5"
              :aria-label="`Delete the template ${one.name}`"
              @click="removeOwn(one)"
            >
              Delete
            </button>
          </div>
          <TemplateCard
            v-for="one in found"
            :key="one.key"
            :path="`/api/templates/${one.key}`"
            :name="one.name"
            :about="one.about"
            @choose="startLetter(one.key)"
          />
        </div>
        <p v-if="!found.length && !ownFound.length" class="sheet muted p-6">
          Nothing to start from is called that. Try what it is for: “welcome”, “sale”, “survey”.
        </p>
      </div>
      <aside class="sheet" aria-labelledby="earlier-title">
        <div class="sheet-head"><h2 id="earlier-title">Or from</h2></div>
        <div class="p-3.5">
          <button type="button" class="btn w-full justify-center" @click="startLetter('empty')">
            An empty page
          </button>
          <label
            class="btn mt-2 w-full cursor-pointer justify-center focus-within:outline-2 focus-within:outline-brass-500"
            @dragover.prevent
            @drop.prevent="bring($event.dataTransfer?.files[0])"
          >
            {{ bringing ? 'Reading…' : 'A file: HTML, MJML, JSON' }}
            <input
              type="file"
              class="sr-only"
              accept=".html,.htm,.mjml,.json,.txt,text/html,application/json"
              :disabled="bringing"
              @change="bring(($event.target as HTMLInputElement).files?.[0])"
            />
          </label>
          <h3 class="muted small mt-4 mb-1">One of your mailings</h3>
          <button
            v-for="one in earlier"
            :key="one.id"
            type="button"
            class="block w-full rounded px-2 py-1.5 text-left hover:bg-canvas-50"
            @click="from(one)"
          >
            <span class="block truncate font-[560]">{{ one.name }}</span><span
              class="muted small block truncate"
              >{{ one.subject || 'No subject' }}</span
            >
          </button>
          <p v-if="mailings && !earlier.length" class="muted small">
            {{ words ? 'None is called that.' : 'There is none yet.' }}
          </p>
        </div>
      </aside>
    </div>
  </div>
</template>
