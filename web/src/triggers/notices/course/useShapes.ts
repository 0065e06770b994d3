import { computed, type Ref } from 'vue'

interface Step {
  name: string
  pass: number
  lost: number
}

/**
 * The shapes of a course, in columns across and percent of what happens down: the stream through its gates and on to
 * the disk, and the fork of the base layer, which joins it there. What is on disk in all is known of whole weeks only.
 */
export function useShapes<S extends Step>(steps: Ref<S[]>, all: Ref<number>, onDisk: () => number | undefined) {
  const percent = (v: number) => (100 * v) / all.value
  /** The stream from each gate to the next. */
  const flow = computed(() =>
    steps.value.slice(0, -1).map((s, i) => {
      const [a, b] = [percent(s.pass), percent(steps.value[i + 1]!.pass)]
      return `${i},0 ${i + 1},0 ${i + 1},${b} ${i},${a}`
    }),
  )
  const losses = computed(() => steps.value.flatMap((s, i) => (s.lost > 0.05 ? [{ ...s, at: i }] : [])))
  /** What is on disk in the end: what the triggers record, and what the base layer has of the rest. */
  const disk = computed(() => {
    const known = onDisk()
    if (known === undefined) return undefined
    const sum = Math.min(known, all.value)
    const triggered = Math.min(steps.value.at(-1)!.pass, sum)
    return { sum, triggered, base: sum - triggered }
  })
  /** The stream from the last gate to the disk. */
  const joined = computed(() => {
    const [a, b] = [percent(steps.value.at(-1)!.pass), percent(disk.value?.triggered ?? 0)]
    const n = steps.value.length
    return `${n - 1},0 ${n},0 ${n},${b} ${n - 1},${a}`
  })
  /** The stream of the base layer: it forks where the last are lost, and joins the other on disk. */
  const fork = computed(() => {
    if (!disk.value || disk.value.base < 0.05) return undefined
    const [at, to] = [losses.value.at(-1)?.at ?? 1, steps.value.length]
    const [base, end] = [percent(disk.value.base), percent(disk.value.triggered)]
    const before = percent(steps.value[at - 1]!.pass)
    const earlier = Math.max(before, Math.min(100, end + base))
    return `${at - 1},${before} ${at},${end} ${to},${end} ${to},${end + base} ${at},${end + base} ${at - 1},${earlier}`
  })
  const columns = computed(() => steps.value.length + (disk.value ? 1 : 0))
  /** The columns of the line of a loss: it begins below its gate, or ends there where it would leave the picture. */
  const under = (at: number) => (at < columns.value / 2 ? `${at + 1} / -1` : `1 / ${at + 3}`)
  return { flow, losses, disk, joined, fork, columns, under }
}
