import { computed, ref, watch } from 'vue'

import type { SheetStep } from '../../api/types'
import { useSite } from '../../site/useSite'
import { useSheets } from './useSheets'

/** The sheet that is open, its sections, and the step in hand. */
export function useOpenSheet() {
  const site = useSite()
  const { sheets, failure, tick, printed } = useSheets()
  const chosen = ref('')
  const recorders = computed(() => sheets.value?.recorders ?? [])
  const sheet = computed(() => recorders.value.find((r) => r.id === chosen.value) ?? recorders.value[0])
  const recorder = computed(() => site.plan?.recorders.find((r) => r.id === sheet.value?.id))
  const duties = computed(() => new Map((sheets.value?.duties ?? []).map((d) => [d.id, d])))

  const sections = computed(() =>
    (sheets.value?.sections ?? [])
      .map((s, i) => {
        const steps = sheet.value?.steps.filter((step) => step.section === s.id) ?? []
        return { ...s, number: i + 1, steps, done: steps.filter((step) => step.done).length }
      })
      .filter((s) => s.steps.length),
  )
  const open = ref('')
  const section = computed(() => sections.value.find((s) => s.id === open.value) ?? sections.value[0])

  const inHand = ref('')
  watch(section, (s) => {
    if (s && !s.steps.some((step) => step.id === inHand.value)) inHand.value = s.steps[0]?.id ?? ''
  })
  const step = computed(() => section.value?.steps.find((s) => s.id === inHand.value) ?? section.value?.steps[0])

  function show(step: SheetStep) {
    open.value = step.section
    inHand.value = step.id
  }

  const busy = ref(false)
  async function mark(steps: SheetStep[], isDone: boolean) {
    if (!sheet.value || busy.value) return
    busy.value = true
    const keys = steps.map((s) => s.key)
    await tick(sheet.value.id, keys, isDone)
    busy.value = false
  }

  return {
    ...{ sheets, failure, printed, chosen, recorders, sheet, recorder, duties },
    ...{ sections, open, section, inHand, step, show, busy, mark },
  }
}
