<script setup lang="ts">
import { limits } from '~~/core/counting'

interface Row {
  domain: string
  recipients: number
  delivered: number
  deferred: number
  opened: number
  bounced: { n: number; rate: number; over: boolean }
  complained: { n: number; rate: number; over: boolean }
}
const { answer } = useAnswer<{ week: Row[]; month: Row[] }>(() => '/api/standing')
const periods = computed(() =>
  answer.value
    ? [
        { name: 'Last 7 days', rows: answer.value.week },
        { name: 'Last 30 days', rows: answer.value.month },
      ]
    : [],
)
</script>

<template>
  <div class="px-6 py-5">
    <h1>Standing</h1>
    <p class="muted mt-1">
      What mailbox providers made of your mail. Bounces should stay under
      {{ percent(limits.bounced) }}, complaints under {{ percent(limits.complained) }}; at
      {{ percent(limits.complainedStop) }} stop and look.
    </p>
    <DomainRecords />
    <div v-for="period in periods" :key="period.name" class="sheet mt-4">
      <div class="sheet-head">
        <h2>{{ period.name }}</h2>
      </div>
      <p v-if="period.rows.length === 0" class="muted p-4">Nothing was sent in this time.</p>
      <table v-else class="grid-table">
        <thead>
          <tr>
            <th>Mailbox provider</th>
            <th class="num">Recipients</th>
            <th class="num">Delivered</th>
            <th class="num">Deferred now</th>
            <th class="num">Opened</th>
            <th class="num">Bounced</th>
            <th class="num">Complained</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in period.rows" :key="row.domain">
            <td>{{ row.domain }}</td>
            <td class="num">{{ count(row.recipients) }}</td>
            <td class="num">{{ count(row.delivered) }}</td>
            <td class="num">{{ count(row.deferred) }}</td>
            <td class="num">{{ row.delivered ? percent(row.opened / row.delivered) : '—' }}</td>
            <td class="num" :class="row.bounced.over && 'font-semibold text-bad-600'">
              {{ percent(row.bounced.rate) }} · {{ count(row.bounced.n)
              }}<template v-if="row.bounced.over"> over</template>
            </td>
            <td class="num" :class="row.complained.over && 'font-semibold text-bad-600'">
              {{ percent(row.complained.rate) }} · {{ count(row.complained.n)
              }}<template v-if="row.complained.over"> over</template>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>
