<script setup lang="ts">
import type { TodaySheet } from '~~/core/results'
defineProps<{ standing: TodaySheet['standing'] }>()
</script>

<template>
  <div class="sheet">
    <div class="sheet-head">
      <h2>Standing</h2>
      <span class="small muted">last 7 days</span>
    </div>
    <p v-if="!standing.length" class="muted p-4">Nothing was sent in the last 7 days.</p>
    <table v-else class="grid-table">
      <thead>
        <tr>
          <th>Mailbox provider</th>
          <th class="num">Delivered</th>
          <th class="num">Bounced</th>
          <th class="num">Complaints</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in standing" :key="row.domain">
          <td>{{ row.domain }}</td>
          <td class="num">{{ count(row.delivered) }}</td>
          <td class="num" :class="row.rates.bounced.over && 'font-semibold text-bad-600'">
            {{ percent(row.rates.bounced.rate)
            }}<template v-if="row.rates.bounced.over"> over</template>
          </td>
          <td class="num" :class="row.rates.complained.over && 'font-semibold text-bad-600'">
            {{ percent(row.rates.complained.rate)
            }}<template v-if="row.rates.complained.over"> over</template>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
