<script setup lang="ts">
import type { components } from '../api/schema'
import { whole } from '../ui/figures'
import { ruleName } from './figureFile'

/** Findings of all sites by rule. */
defineProps<{ found: components['schemas']['OverviewAllOf'][] }>()
</script>

<template>
  <section class="sheet">
    <h2>Findings</h2>
    <table data-test="by-rule">
      <thead>
        <tr>
          <th>What is found</th>
          <th>How bad</th>
          <th class="number">Sites</th>
          <th class="number">Open</th>
          <th class="number">Accepted</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="o in found" :key="o.severity + o.rule">
          <td>{{ ruleName(o.rule) }}</td>
          <td :class="o.severity === 'error' ? 'short' : 'soft'">{{ o.severity }}</td>
          <td class="number">{{ whole(o.sites) }}</td>
          <td class="number">{{ whole(o.open) }}</td>
          <td class="number">{{ whole(o.accepted) }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
