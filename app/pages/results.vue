<script setup lang="ts">
import { totalOf } from '~~/core/counting'

interface Row {
  id: number
  name: string
  state: string
  started_at: number | null
  accepted: number | null
  complained: number | null
  opened: number | null
}
const route = useRoute()
const { at } = useTimes()
const { answer: mailings } = useAnswer<Row[]>(() => '/api/mailings')
const sent = computed(() => (mailings.value ?? []).filter((row) => row.started_at !== null))
const openShare = (row: Row) => (row.opened ?? 0) / Math.max(1, totalOf(row, 'delivered'))
useLanding(
  () => '/results',
  () => sent.value[0] && `/results/${sent.value[0].id}`,
)
useKeys((event) => {
  if (isWriting(event) || event.ctrlKey || event.metaKey) return
  const here = sent.value.findIndex((row) => String(row.id) === route.params.id)
  const next =
    event.key === 'j' ? sent.value[here + 1] : event.key === 'k' ? sent.value[here - 1] : undefined
  if (next) void navigateTo(`/results/${next.id}`)
})
</script>

<template>
  <div class="flex h-full">
    <nav class="side w-[230px]" aria-label="Results">
      <NuxtLink to="/results/account" class="side-item" active-class="here">Over the year</NuxtLink>
      <NuxtLink to="/results/data" class="side-item border-b border-line" active-class="here"
        >Export</NuxtLink
      >
      <NuxtLink
        v-for="row in sent"
        :key="row.id"
        :to="`/results/${row.id}`"
        class="side-item flex-col !gap-0"
        active-class="here"
      >
        <span class="truncate">{{ row.name }}</span><span
          class="muted small flex justify-between font-normal"
          ><span>{{ at(row.started_at!).toFormat('d LLL yyyy') }}</span
          ><span>{{ percent(openShare(row)) }} opened</span></span
        >
      </NuxtLink>
    </nav>
    <div class="min-w-0 flex-1 overflow-auto px-5 py-4">
      <NuxtPage />
      <div
        v-if="mailings && !sent.length && route.path === '/results'"
        class="mx-auto max-w-md pt-[12vh]"
      >
        <h1>No results yet</h1>
        <p class="muted mt-1">
          When a mailing has gone out, it will stand here how far people got with it, and when.
        </p>
        <button class="btn btn-go mt-4" @click="writeLetter">Write a letter</button>
      </div>
    </div>
  </div>
</template>
