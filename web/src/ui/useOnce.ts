import { whenever } from '@vueuse/core'
import { ref } from 'vue'

/** Whether something has ever been so: what is shown then for the first time stays, and closes as it likes. */
export function useOnce(so: () => boolean) {
  const been = ref(so())
  whenever(so, () => (been.value = true))
  return been
}
