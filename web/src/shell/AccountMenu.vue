<script setup lang="ts">
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus'
import { useRouter } from 'vue-router'

import { api } from '../api/client'
import { loadMe } from '../api/me'
import { me, told } from '../api/session'
import { count } from '../ui/figures'
import { notice } from '../ui/notice'
import { askHabits } from './askHabits'

/** Who is signed in, and what is theirs. */
const router = useRouter()

async function act(command: 'account' | 'people' | 'audit' | 'habits' | 'out', lose = false) {
  if (command === 'habits') return void askHabits()
  if (command !== 'out') return void router.push({ name: command })
  // What was taken along for a walk test goes with whoever took it; where something of it is not sent yet, it is asked.
  const { emptyHere, waitingHere } = await import('../along/store')
  const waits = await waitingHere()
  if (waits && !lose) {
    const words = `${count(waits, 'result')} of a walk test in this browser not sent yet: send first under Handover, Walk test.`
    return void notice(words, {
      seconds: 12,
      act: { label: 'Lose it, and sign out', run: () => void act('out', true) },
    })
  }
  await emptyHere()
  await api.POST('/api/sign-out')
  told()
  await loadMe()
}
</script>

<template>
  <ElDropdown v-if="me?.here" trigger="click" placement="bottom-end" :persistent="false" @command="act">
    <button type="button" class="plain-button" data-test="account">
      {{ me.name }} <span aria-hidden="true">▾</span>
    </button>
    <template #dropdown>
      <ElDropdownMenu>
        <ElDropdownItem command="account">Your account</ElDropdownItem>
        <ElDropdownItem v-if="me.planner" command="people">People</ElDropdownItem>
        <ElDropdownItem v-if="me.planner" command="audit">What happened</ElDropdownItem>
        <ElDropdownItem command="habits">Times and numbers</ElDropdownItem>
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
