<script setup lang="ts">
import type { LetterChange } from '~~/core/letters'

/** How the letter was: who wrote when, what is different now, and the way back. */
interface Version {
  id: number
  beganAt: number
  at: number
  byName: string
  version: number
  restoredFrom: number | null
}
interface Beside {
  changes: LetterChange[]
  then: { subject: string; html: string }
  now: { subject: string; html: string }
}
const store = useMailing()
const route = useRoute()
const { dayAndTime, time } = useTimes()
const base = computed(() => `/api/mailings/${String(route.params.id)}/history`)
const { answer: versions, reload } = useAnswer<Version[]>(() => base.value)
const chosen = computed(() => Number(route.query.version) || versions.value?.[1]?.id || null)
const { answer: beside } = useAnswer<Beside>(() =>
  chosen.value === null ? null : `${base.value}/${chosen.value}`,
)
const span = (version: Version) =>
  version.at - version.beganAt < 60_000
    ? dayAndTime(version.at)
    : `${dayAndTime(version.beganAt)} to ${time(version.at)}`
async function restore() {
  const back = versions.value?.[0]?.id
  if (!(await act(`${base.value}/${chosen.value}`, 'POST'))) return
  await Promise.all([store.refresh(), reload()])
  useNotices().say('The letter is as it was then.', {
    label: 'Undo',
    run: async () => {
      await act(`${base.value}/${back}`, 'POST')
      await Promise.all([store.refresh(), reload()])
    },
  })
}
const signs = { added: '+', removed: '−', changed: '≠', moved: '↕' }
const short = (text: string | undefined) =>
  text && text.length > 110 ? `${text.slice(0, 109)}…` : text
</script>

<template>
  <div v-if="store.mailing" class="grid h-full grid-cols-[260px_1fr]">
    <nav class="min-h-0 overflow-auto border-r border-line bg-sheet py-3" aria-label="Versions">
      <h2 class="px-4 pb-2">History</h2>
      <p v-if="versions && !versions.length" class="muted px-4">
        Nobody has changed this letter yet.
      </p>
      <NuxtLink
        v-for="(version, i) in versions"
        :key="version.id"
        :to="{ query: { version: version.id } }"
        class="block px-4 py-2"
        :class="
          version.id === chosen
            ? 'bg-brass-100 shadow-[inset_3px_0_0_var(--brass-500)]'
            : 'hover:bg-canvas-50'
        "
        :aria-current="version.id === chosen ? 'true' : undefined"
      >
        <b class="font-[560]">{{ span(version) }}</b>
        <span class="muted small block"
          >{{ version.byName || 'Somebody' }}{{ i === 0 ? ' · as it is now' : ''
          }}{{ version.restoredFrom ? ' · restored' : ''
          }}{{ version.version === 1 ? ' · as it was begun' : '' }}</span
        >
      </NuxtLink>
    </nav>
    <div class="flex min-h-0 flex-col overflow-auto p-5">
      <p v-if="chosen === null" class="muted">
        A version is kept for each sitting of each author. There is nothing yet to compare with.
      </p>
      <template v-else-if="beside">
        <div class="flex items-start justify-between gap-4">
          <div>
            <h2>
              {{
                beside.changes.length
                  ? `${several(beside.changes.length, 'thing is', 'things are')} different now`
                  : 'Nothing is different now'
              }}
            </h2>
            <ul class="small m-0 mt-1.5 list-none p-0">
              <li v-for="(change, i) in beside.changes.slice(0, 12)" :key="i" class="py-0.5">
                <span class="inline-block w-4 font-semibold" aria-hidden="true">{{
                  signs[change.what]
                }}</span><b class="font-[560]">{{ change.name }}</b> {{ change.what
                }}<template v-if="change.before || change.after"
                  >: <s v-if="change.before" class="muted">{{ short(change.before) }}</s>
                  {{ short(change.after) }}</template
                >
              </li>
              <li v-if="beside.changes.length > 12" class="muted">
                and {{ beside.changes.length - 12 }} more
              </li>
            </ul>
          </div>
          <button
            v-if="store.canChange && beside.changes.length"
            type="button"
            class="btn btn-go flex-none"
            @click="restore"
          >
            Restore this version
          </button>
        </div>
        <div class="mt-4 grid min-h-[420px] flex-1 grid-cols-2 gap-4">
          <section
            v-for="[title, one] in [
              ['Then', beside.then],
              ['Now', beside.now],
            ] as const"
            :key="title"
            class="flex flex-col"
            :aria-label="title"
          >
            <p class="mb-1.5">
              <span class="muted">{{ title }}</span> <b>{{ one.subject || 'No subject' }}</b>
            </p>
            <iframe
              :srcdoc="framed(one.html)"
              sandbox=""
              :title="`The letter ${title.toLowerCase()}`"
              class="w-full flex-1 border border-line bg-sheet"
            />
          </section>
        </div>
      </template>
    </div>
  </div>
</template>
