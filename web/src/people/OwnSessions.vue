<script setup lang="ts">
import { ask, useAnswer } from '../api/ask'
import { api } from '../api/client'
import { loadMe } from '../api/me'
import { told } from '../api/session'
import { notice } from '../ui/notice'
import { when } from './when'

/** Where one is signed in. */
const { data: sessions, again } = useAnswer(
  () => '',
  () => api.GET('/api/me/sessions'),
  { keep: true },
)
/** Ends one session, or all. */
async function end(session: string) {
  const answer = await ask(api.POST('/api/me/sessions/end', { body: { session } }))
  if (answer.problem) notice(answer.problem, { error: true })
  told()
  await loadMe()
  void again()
}
/** What a browser says of itself, in few words. */
function device(text: string) {
  const browser = /(Firefox|Edg|Chrome|Safari)[/]/.exec(text)?.[1]?.replace('Edg', 'Edge') ?? 'Program'
  const system = /(Windows|Android|iPhone|iPad|Mac OS X|Linux)/.exec(text)?.[1] ?? ''
  return system ? `${browser}, ${system}` : browser
}
</script>

<template>
  <section v-if="sessions" aria-label="Where you are signed in" data-test="sessions">
    <h2>Where you are signed in</h2>
    <table>
      <thead>
        <tr>
          <th>Browser</th>
          <th>Address</th>
          <th>Since</th>
          <th>Used last</th>
          <th><span class="visually-hidden">Act</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="s in sessions" :key="s.id" :data-session="s.here ? 'here' : 'other'">
          <td :title="s.device">{{ device(s.device) }}<b v-if="s.here"> (here)</b></td>
          <td>{{ s.address }}</td>
          <td>{{ when(s.made) }}</td>
          <td>{{ when(s.seen) }}</td>
          <td>
            <button
              v-if="!s.here"
              type="button"
              class="plain-button link remove"
              :aria-label="`Sign out ${device(s.device)} at ${s.address}`"
              data-test="end-session"
              @click="end(s.id)"
            >
              Sign out
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <p>
      <button type="button" class="act quiet" data-test="end-all" @click="end('')">Sign out everywhere</button>
    </p>
  </section>
</template>
