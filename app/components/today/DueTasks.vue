<script setup lang="ts">
import type { TodaySheet } from '~~/core/results'

/** The team's tasks that press most. */
defineProps<{ tasks: TodaySheet['tasks'] }>()
const emit = defineEmits<{ change: [] }>()
</script>

<template>
  <section class="sheet" aria-label="Tasks">
    <div class="sheet-head">
      <h2>Tasks</h2>
      <NuxtLink class="link small" to="/tasks"
        >{{ count(tasks.due) }} by today, {{ count(tasks.open) }} in all</NuxtLink
      >
    </div>
    <TaskList :tasks="tasks.tasks" :today="tasks.today" named @change="emit('change')" />
  </section>
</template>
