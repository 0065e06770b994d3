<script setup lang="ts">
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus'
import { useRouter } from 'vue-router'

import { api } from '../api/client'
import { loadMe } from '../api/me'
import { me, told } from '../api/session'

/** Who is signed in, and what is theirs. */
const router = useRouter()

async function act(command: 'account' | 'people' | 'audit' | 'out') {
  if (command !== 'out') return void router.push({ name: command })
  await api.POST('/api/sign-out')
  told()
  await loadMe()
}
</script>

<template>
  <ElDropdown v-if="me?.here" trigger="click" placement="bottom-end" @command="act">
    <button type="button" class="plain-button" data-test="account">
      {{ me.name }} <span aria-hidden="true">▾</span>
    </button>
    <template #dropdown>
      <ElDropdownMenu>
        <ElDropdownItem command="account">Your account</ElDropdownItem>
        <ElDropdownItem v-if="me.planner" command="people">People</ElDropdownItem>
        <ElDropdownItem v-if="me.planner" command="audit">What happened</ElDropdownItem>
        <ElDropdownItem command="out" divided data-test="sign-out">Sign out</ElDropdownItem>
      </ElDropdownMenu>
    </template>
  </ElDropdown>
</template>

<style scoped>
.el-dropdown {
  font: inherit;
  color: inherit;
}
</style>
