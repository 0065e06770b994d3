<script setup lang="ts">
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus'

import { useSite } from '../site/useSite'

/** The plan as a file, with or without its pictures. */
const site = useSite()
const exported = (as: 'file' | 'zip') => location.assign(`/api/plans/${site.planId}/${as}`)
</script>

<template>
  <ElDropdown trigger="click" placement="bottom-end" @command="(as: 'file' | 'zip') => exported(as)">
    <button type="button" class="plain-button" data-test="export">Export plan</button>
    <template #dropdown>
      <ElDropdownMenu>
        <ElDropdownItem command="file">The plan file</ElDropdownItem>
        <ElDropdownItem command="zip">With its pictures</ElDropdownItem>
      </ElDropdownMenu>
    </template>
  </ElDropdown>
</template>
