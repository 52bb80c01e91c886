import { useEffect, useRef, useState } from 'react'

/** What somebody wants of this device in the hall; kept on it. */
export function useWanted(name: string): [boolean, (wanted: boolean) => void] {
  const key = `zeitplan hall ${name}`
  const [wanted, setWanted] = useState(() => localStorage.getItem(key) === 'on')
  return [
    wanted,
    (now) => {
      localStorage.setItem(key, now ? 'on' : 'off')
      setWanted(now)
    },
  ]
}

/** The screen stays on while this is shown, on devices that can. */
export function useAwake() {
  useEffect(() => {
    let lock: WakeLockSentinel | undefined
    let gone = false
    const ask = () => {
      if (document.visibilityState !== 'visible' || !('wakeLock' in navigator)) return
      // A device that is nearly empty refuses, and then goes dark as it always does.
      navigator.wakeLock.request('screen').then(
        (held) => {
          if (gone) void held.release()
          else lock = held
        },
        () => undefined,
      )
    }
    ask()
    document.addEventListener('visibilitychange', ask)
    return () => {
      gone = true
      document.removeEventListener('visibilitychange', ask)
      void lock?.release()
    }
  }, [])
}

let audio: AudioContext | undefined

/** A soft tone; low for a breath, higher for a change. */
export function tone(kind: 'change' | 'breath') {
  audio ??= new AudioContext()
  const [pitch, loud, long] = kind === 'change' ? [528, 0.25, 2.2] : [264, 0.1, 1.2]
  const [from, voice, gain] = [audio.currentTime, audio.createOscillator(), audio.createGain()]
  voice.frequency.value = pitch
  gain.gain.setValueAtTime(0, from)
  gain.gain.linearRampToValueAtTime(loud, from + 0.04)
  gain.gain.exponentialRampToValueAtTime(0.0001, from + long)
  voice.connect(gain).connect(audio.destination)
  voice.start(from)
  voice.stop(from + long)
}

/** Says by sound and by touch that something else begins. */
export function useChangeSignal(what: string, wanted: boolean) {
  const before = useRef(what)
  useEffect(() => {
    if (before.current === what) return
    before.current = what
    if (!wanted) return
    tone('change')
    if ('vibrate' in navigator) navigator.vibrate(200)
  }, [what, wanted])
}

/** A quiet bell at each new breath. */
export function useBreathBell(seconds: number, wanted: boolean) {
  useEffect(() => {
    if (!wanted) return
    const bell = setInterval(() => tone('breath'), seconds * 1000)
    return () => clearInterval(bell)
  }, [seconds, wanted])
}
