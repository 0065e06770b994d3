<script setup lang="ts">
import type { components } from '../api/schema'
import { gigabytes, whole } from '../ui/figures'

/** What is planned for whom. */
defineProps<{ customers: components['schemas']['OverviewOrdered'][] }>()
</script>

<template>
  <section class="sheet">
    <h2>Customers</h2>
    <table>
      <thead>
        <tr>
          <th>Customer</th>
          <th class="number">Sites</th>
          <th class="number">Channels</th>
          <th class="number">Storage</th>
          <th class="number">Short</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="c in customers" :key="c.customer">
          <td>
            <RouterLink v-if="c.customer" :to="{ path: '/', query: { customer: c.customer } }">{{
              c.customer
            }}</RouterLink><span v-else class="soft">not named</span>
          </td>
          <td class="number">{{ whole(c.sites) }}</td>
          <td class="number">{{ whole(c.channels) }}</td>
          <td class="number">{{ gigabytes(c.usableGB) }}</td>
          <td class="number" :class="{ short: c.short }">{{ whole(c.short) }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
