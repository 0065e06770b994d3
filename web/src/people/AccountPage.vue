<script setup lang="ts">
import { me } from '../api/session'
import PeopleFrame from './PeopleFrame.vue'
import OwnKeys from './OwnKeys.vue'
import OwnSessions from './OwnSessions.vue'
import OwnTokens from './OwnTokens.vue'

/** One's own account: how one signs in, where one is signed in, and tokens for programs. */
const role = { planner: 'planner', fitter: 'fitter', reader: 'reader' }
</script>

<template>
  <PeopleFrame title="Your account">
    <p data-test="who">
      <b>{{ me?.name }}</b>,
      <template v-if="me?.planner">planner of the whole company.</template>
      <template v-else-if="me?.roles.length">
        <template v-for="(r, i) in me.roles" :key="r.site"
          >{{ i ? ', ' : '' }}{{ role[r.role] }} of {{ r.site }}</template
        >.
      </template>
      <template v-else>without a role at any site yet: a planner of your company gives you one.</template>
    </p>
    <p v-if="me?.setUp" class="short" role="alert">
      Your company asks for a passkey, or a code beside the password. Set one up below, and everything else opens.
    </p>
    <OwnKeys />
    <OwnSessions />
    <OwnTokens />
  </PeopleFrame>
</template>
