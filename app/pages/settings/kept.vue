<script setup lang="ts">
import { retention } from '~~/core/retention'

/** For how long everything is kept, and why: the same table by which the engine deletes. */
const lasts = (days: number | null) =>
  days === null
    ? 'as long as the account'
    : days % 365 === 0
      ? several(days / 365, 'year', 'years')
      : several(days, 'day', 'days')
</script>

<template>
  <div class="mx-auto max-w-3xl px-6 py-5">
    <h1>Settings</h1>
    <SettingsNav />
    <section class="sheet mt-4 p-5" aria-labelledby="kept-title">
      <h2 id="kept-title">What is kept, and for how long</h2>
      <p class="muted">
        Satchel deletes the rest by itself. A person’s page gives out all that is known of somebody,
        and erases it for good.
      </p>
      <table class="grid-table mt-2">
        <thead>
          <tr>
            <th>What</th>
            <th class="whitespace-nowrap">For how long</th>
            <th>Why</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in retention" :key="one.key" class="align-top">
            <td class="w-[36%]">{{ one.what }}</td>
            <td class="whitespace-nowrap">{{ lasts(one.days) }}</td>
            <td class="muted">{{ one.why }}</td>
          </tr>
        </tbody>
      </table>
    </section>
  </div>
</template>
