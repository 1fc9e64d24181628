<script setup lang="ts">
import { siteOf } from '~~/core/sign-ups'

/** Where the form stands: on a page of its own, and on which sites. */
const store = useSignUp()
const form = computed(() => store.form!)
const of = computed(() => store.signUp!)
const site = ref('')
const fault = ref('')
function addSite() {
  const origin = siteOf(site.value.trim())
  fault.value = origin ? '' : 'Write a site as it is reached: “galewright.example”.'
  if (!origin) return
  if (!form.value.sites.includes(origin)) store.setForm({ sites: [...form.value.sites, origin] })
  site.value = ''
}
const removeSite = (one: string) =>
  store.setForm({ sites: form.value.sites.filter((other) => other !== one) })
/** What is pasted: the line that brings the account’s forms, and for one within a page the place where it stands. */
const line = computed(
  () =>
    `<script async src="${of.value.home}/s/forms.js" data-form="${of.value.key}"></${'script'}>`,
)
const frame = computed(
  () =>
    `<iframe src="${of.value.address}?in=page" title="${of.value.name.replaceAll('"', '&quot;')}" style="border:0;width:100%;height:480px" loading="lazy"></iframe>`,
)
const pasted = computed(() =>
  form.value.kind === 'in-page'
    ? `<div data-sign-up="${of.value.key}"></div>\n${line.value}`
    : line.value,
)
const notices = useNotices()
async function copy(what: string, words: string) {
  await navigator.clipboard.writeText(what)
  notices.say(words)
}
const { dayAndTime } = useTimes()
const desk = ref<{ address: string; until: number } | null>(null)
async function openDesk() {
  desk.value = await act<{ address: string; until: number }>(
    `/api/sign-ups/${of.value.id}/desk`,
    'POST',
  )
}
const code = (as: string) => `/api/sign-ups/${of.value.id}/code?as=${as}`
</script>

<template>
  <div v-if="store.form" class="grid h-full grid-cols-[minmax(0,1fr)_318px]">
    <div class="overflow-auto px-5 py-5">
      <div class="mx-auto grid max-w-[680px] gap-5">
        <section class="sheet" aria-label="Its own page">
          <div class="sheet-head">
            <h2>Its own page</h2>
            <span class="muted small">{{
              of.state === 'live' ? 'open to everybody' : 'closed until it is live'
            }}</span>
          </div>
          <div class="flex items-center gap-5 p-4">
            <img
              :src="code('svg')"
              alt="QR code of the page’s address"
              class="size-32 border border-line-soft"
            />
            <div class="min-w-0 flex-1">
              <a class="link break-all" :href="of.address" target="_blank" rel="noopener">{{
                of.address
              }}</a>
              <p class="muted small mt-1">
                For a link, a poster or a shop’s window. Values like
                <code>?utm_source=poster</code> are kept as the source, where the form asks for
                them.
              </p>
              <div class="mt-2.5 flex flex-wrap gap-2">
                <button
                  type="button"
                  class="btn btn-sm"
                  @click="copy(of.address, 'The address is copied.')"
                >
                  Copy the address
                </button>
                <a class="btn btn-sm" :href="code('svg')" download>QR code, SVG</a>
                <a class="btn btn-sm" :href="code('png')" download>QR code, PNG</a>
                <button
                  v-may="'POST /api/sign-ups/[id]/desk'"
                  type="button"
                  class="btn btn-sm"
                  :disabled="of.state !== 'live'"
                  @click="openDesk"
                >
                  Desk mode
                </button>
              </div>
            </div>
          </div>
        </section>
        <section v-if="desk" class="sheet" aria-label="At a desk">
          <div class="sheet-head">
            <h2>At a desk</h2>
            <span class="muted small">works until {{ dayAndTime(desk.until) }}</span>
          </div>
          <div class="grid gap-2 p-4">
            <a class="link break-all" :href="desk.address" target="_blank" rel="noopener">{{
              desk.address
            }}</a>
            <p class="muted small">
              Open it on the tablet and make it full screen. It clears itself after each person.
              What is entered while there is no line is kept on the tablet and handed in later;
              leave the page open until it says that nothing waits. Addresses are always confirmed.
            </p>
            <div>
              <button
                type="button"
                class="btn btn-sm"
                @click="copy(desk.address, 'The address is copied.')"
              >
                Copy the address
              </button>
            </div>
          </div>
        </section>
        <section v-if="form.kind !== 'hosted'" class="sheet" aria-label="On your pages">
          <div class="sheet-head">
            <h2>On your pages</h2>
            <span class="muted small"
              >pasted once; what you publish later stands there by itself</span
            >
          </div>
          <div class="grid gap-3 p-4">
            <div>
              <h3 class="font-[560]">Sites on which it may stand</h3>
              <p v-if="!form.sites.length" class="muted small mt-1">
                None yet. On every other site it refuses to be shown.
              </p>
              <ul v-else class="m-0 mt-1 list-none p-0">
                <li v-for="one in form.sites" :key="one" class="flex min-h-8 items-center gap-3">
                  <span class="min-w-0 truncate">{{ one }}</span><button
                    v-if="store.canChange"
                    type="button"
                    class="link small ml-auto"
                    :aria-label="`Remove ${one}`"
                    @click="removeSite(one)"
                  >
                    Remove
                  </button>
                </li>
              </ul>
              <form v-if="store.canChange" class="mt-2 flex gap-2" @submit.prevent="addSite">
                <input
                  v-model="site"
                  class="field field-sm w-64"
                  aria-label="Another site"
                  placeholder="galewright.example"
                /><button class="btn btn-sm" :disabled="!site.trim()">Add</button>
              </form>
              <p v-if="fault" class="fault mt-1" role="alert">{{ fault }}</p>
            </div>
            <div>
              <h3 class="font-[560]">To paste where it is to stand</h3>
              <textarea
                class="field mt-1 font-mono text-[12.5px]"
                rows="3"
                readonly
                aria-label="Lines to paste"
                :value="pasted"
              />
              <button
                type="button"
                class="btn btn-sm mt-2"
                @click="copy(pasted, 'The lines are copied.')"
              >
                Copy
              </button>
              <p class="muted small mt-2">
                No cookies, nothing asked of anybody else. Without <code>data-form</code> the same
                line brings every live form of the account that may stand on the site.
              </p>
            </div>
            <details v-if="form.kind === 'in-page'">
              <summary class="cursor-pointer">Without a script: as a frame</summary>
              <textarea
                class="field mt-2 font-mono text-[12.5px]"
                rows="3"
                readonly
                aria-label="Lines to paste, as a frame"
                :value="frame"
              />
              <p class="muted small mt-1">
                A frame can’t prove on which site it stands, so addresses are always confirmed.
              </p>
            </details>
            <details v-if="form.kind === 'in-page'">
              <summary class="cursor-pointer">Without a script: as a plain form</summary>
              <textarea
                class="field mt-2 font-mono text-[12.5px]"
                rows="8"
                readonly
                aria-label="Lines to paste, as a plain form"
                :value="of.plain"
              />
              <p class="muted small mt-1">
                In your page’s own style. What is entered is shown once more on Satchel’s page, and
                taken when it is sent from there; addresses are always confirmed. After a change of
                what it asks, it has to be pasted anew.
              </p>
            </details>
          </div>
        </section>
        <PopOverPlacement v-if="form.kind === 'pop-over'" />
      </div>
    </div>
    <aside class="overflow-auto border-l border-line bg-sheet"><SignUpMarks /></aside>
  </div>
</template>
