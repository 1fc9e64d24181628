<script setup lang="ts">
/** The letter as classes of mail program draw it, side by side, for one reader. */
interface Renderings {
  subject: string
  text: string
  reader: string | null
  drawn: { key: string; name: string; about: string; html: string }[]
}
const store = useMailing()
const route = useRoute()
const truths = computed(() =>
  ['truths', 'lacks']
    .flatMap((name) =>
      typeof route.query[name] === 'string'
        ? `&${name}=${encodeURIComponent(route.query[name])}`
        : [],
    )
    .join(''),
)
const n = computed(() => Number(route.query.n) || 0)
const narrow = computed(() => route.query.screen === 'narrow')
const { answer, problem } = useAnswer<Renderings>(
  () => `/api/mailings/${String(route.params.id)}/renderings?n=${n.value}${truths.value}`,
  { live: false },
)
const screens = [
  [undefined, 'Desktop'],
  ['narrow', 'Phone'],
] as const
</script>

<template>
  <div v-if="store.mailing" class="h-full overflow-auto bg-[#eceee7] px-6 py-4">
    <div class="flex items-end justify-between gap-4">
      <div>
        <h2>As mail programs draw it</h2>
        <p class="muted">
          <template v-if="answer?.reader">For {{ answer.reader }}: </template
          ><b class="text-ink-900">{{ answer?.subject }}</b>
        </p>
      </div>
      <nav class="flex gap-1" aria-label="Screen">
        <NuxtLink
          v-for="[screen, name] in screens"
          :key="name"
          :to="{ query: { ...route.query, screen } }"
          class="min-h-7 rounded border border-line px-3 py-0.5"
          :class="
            narrow === (screen === 'narrow')
              ? 'bg-canvas-200 font-semibold'
              : 'bg-sheet hover:bg-canvas-50'
          "
          :aria-current="narrow === (screen === 'narrow') ? 'true' : undefined"
          >{{ name }}</NuxtLink
        >
      </nav>
    </div>
    <p v-if="problem" class="fault mt-3" role="alert">{{ problem }}</p>
    <div
      class="mt-4 grid gap-5"
      :class="
        narrow
          ? 'grid-cols-[repeat(auto-fill,375px)]'
          : 'grid-cols-[repeat(auto-fill,minmax(560px,1fr))]'
      "
    >
      <figure v-for="one in answer?.drawn" :key="one.key" class="m-0">
        <figcaption class="mb-1.5">
          <b>{{ one.name }}</b> <span class="muted small">{{ one.about }}</span>
        </figcaption>
        <iframe
          :srcdoc="framed(one.html)"
          sandbox=""
          :title="one.name"
          class="h-[520px] w-full border border-line bg-sheet"
        />
      </figure>
      <figure v-if="answer" class="m-0">
        <figcaption class="mb-1.5">
          <b>Plain text</b> <span class="muted small">programs that show no HTML</span>
        </figcaption>
        <pre
          class="sheet min-h-[520px] p-4 text-[13px] wrap-anywhere whitespace-pre-wrap"
          aria-label="Plain text"
          >{{ answer.text }}</pre>
      </figure>
    </div>
  </div>
</template>
