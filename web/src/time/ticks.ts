import { clock, DAY, dayNames, type Span } from './week'

const steps = [1, 5, 10, 15, 30, 60, 120, 180, 360, 720, DAY]

/** Ticks of time that stand at least so many pixels apart, with what is written at them; none at midnight. */
export function ticksOf(view: Span, width: number, apart = 38) {
  const length = view.to - view.from
  const step = steps.find((s) => (s / length) * width >= apart) ?? DAY
  const ticks: { minute: number; text: string }[] = []
  for (let m = Math.ceil(view.from / step) * step; m < view.to; m += step) {
    if (m % DAY) ticks.push({ minute: m, text: step < 60 ? clock(m % DAY) : String((m % DAY) / 60) })
  }
  return { step, ticks }
}

/** The days of which something is in view. */
export function daysIn(view: Span): number[] {
  return dayNames.map((_, d) => d).filter((d) => d * DAY < view.to && (d + 1) * DAY > view.from)
}
