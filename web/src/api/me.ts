import { ask } from './ask'
import { api } from './client'
import { onTurn, takeMe } from './session'

/** Asks who is signed in. Where nobody answers, what was known stays. */
export async function loadMe() {
  const told = await ask(api.GET('/api/me'))
  if (told.data) takeMe(told.data)
}
onTurn(() => void loadMe())
