<script setup lang="ts">
import { kindNames, type SignUpKind } from '~~/core/sign-ups'

interface Row {
  id: number
  name: string
  state: string
  kind: SignUpKind
  lately: number
  toLook: number
}
const route = useRoute()
const { answer, problem } = useAnswer<Row[]>(() => '/api/sign-ups')
const signUps = computed(
  () => answer.value?.filter(({ id }) => !isGone(`/api/sign-ups/${id}`)) ?? null,
)
const view = useLabelView('sign-up')
const shown = computed(() => view.kept(signUps.value))
/** Under its headings, where it stands by labels. */
const groups = computed(
  () =>
    view
      .groups(shown.value)
      ?.map(({ label, rows }) => ({ title: label?.name ?? 'No label', rows })) ?? [
      { title: '', rows: shown.value ?? [] },
    ],
)
const making = ref(false)
useLanding(
  () => '/sign-ups',
  () => shown.value?.[0] && view.at(`/sign-ups/${shown.value[0].id}`),
)
const here = (row: Row) => route.path.split('/')[2] === String(row.id)
useKeys((event) => {
  if (isWriting(event) || event.ctrlKey || event.metaKey) return
  if (event.key === 'n') return void (making.value = useSession().may('POST /api/sign-ups'))
  const rows = [...new Set(groups.value.flatMap((group) => group.rows))]
  const at = rows.findIndex(here)
  const next = event.key === 'j' ? rows[at + 1] : event.key === 'k' ? rows[at - 1] : undefined
  if (next) void goTo(view.at(`/sign-ups/${next.id}`))
})
</script>

<template>
  <div class="flex h-full">
    <nav class="side w-[230px]" aria-label="Sign-ups">
      <div class="px-4 pb-2">
        <button
          v-may="'POST /api/sign-ups'"
          class="btn btn-sm w-full justify-center text-center"
          @click="making = true"
        >
          New sign-up
        </button>
      </div>
      <p v-if="problem && !signUps" class="fault px-4" role="alert">{{ problem }}</p>
      <LabelView class="px-4 pb-2" :view="view" />
      <p v-if="shown && view.label && !shown.length" class="muted small px-4 py-2">
        No sign-up has this label.
      </p>
      <template v-for="(group, i) in groups" :key="i">
        <h2 v-if="group.title" class="side-title">{{ group.title }}</h2>
        <NuxtLink
          v-for="row in group.rows"
          :key="row.id"
          :to="view.at(`/sign-ups/${row.id}`)"
          class="side-item flex-col !gap-0"
          :class="here(row) && 'here'"
          :aria-current="here(row) ? 'page' : undefined"
        >
          <span class="truncate">{{ row.name }}</span>
          <span class="muted small flex items-center gap-1.5 font-normal"
            ><StateMark :state="row.state" /><span class="truncate"
              >· {{ kindNames[row.kind] }}</span
            ></span
          >
          <span v-if="row.state !== 'draft'" class="muted small font-normal"
            >{{ count(row.lately) }} in 7 days<template v-if="row.toLook">
              · {{ count(row.toLook) }} to look at</template
            ></span
          >
          <LabelMarks :labels="view.marks(row.id, group.title)" class="mt-0.5" />
        </NuxtLink>
      </template>
    </nav>
    <div class="min-w-0 flex-1">
      <NuxtPage />
      <div
        v-if="signUps && !signUps.length && route.path === '/sign-ups'"
        class="mx-auto max-w-md px-4 pt-[12vh]"
      >
        <h1>No sign-ups yet</h1>
        <p class="muted mt-1">
          A sign-up is a way in: a form by which people join a list by themselves, and agree to it
          word for word. Here it will stand what each one asks, and how many came through it.
        </p>
        <button v-may="'POST /api/sign-ups'" class="btn btn-go mt-4" @click="making = true">
          Make one
        </button>
      </div>
    </div>
    <NewSignUp v-if="making" @close="making = false" />
  </div>
</template>
