import { useStorage } from '@vueuse/core'

/** Whether the phone speaks, and whether it beeps and buzzes. */
export const speaks = useStorage('wakefield-walk-speaks', false)
export const beeps = useStorage('wakefield-walk-beeps', true)

/** Says words aloud. */
export function say(words: string) {
  if (!('speechSynthesis' in window)) return
  speechSynthesis.cancel()
  speechSynthesis.speak(new SpeechSynthesisUtterance(words))
}

let audio: AudioContext | undefined

/** A short beep, and a buzz, where the phone can. */
export function signal(hertz = 880, milliseconds = 160) {
  if (!beeps.value) return
  navigator.vibrate?.(200)
  try {
    audio ??= new AudioContext()
    const tone = audio.createOscillator()
    const loud = audio.createGain()
    tone.frequency.value = hertz
    loud.gain.value = 0.3
    tone.connect(loud).connect(audio.destination)
    tone.start()
    tone.stop(audio.currentTime + milliseconds / 1000)
  } catch {
    // No sound is no reason to stop.
  }
}

/** Keeps the screen on while somebody walks; the answer lets it go. */
export function stayAwake(): () => void {
  let lock: WakeLockSentinel | undefined
  let over = false
  const ask = async () => {
    lock = await navigator.wakeLock?.request('screen').catch(() => undefined)
    if (over) void lock?.release()
  }
  const again = () => document.hidden || void ask()
  void ask()
  document.addEventListener('visibilitychange', again) // a lock goes when the page is hidden
  return () => {
    over = true
    document.removeEventListener('visibilitychange', again)
    void lock?.release()
  }
}
