import { useEffect, useMemo, useRef, useState, type RefObject } from 'react'
import type { FloorHandle } from './FloorStage'

export interface PlayedBeat {
  at: number
  count: number
  frames: readonly (readonly number[])[]
}

interface Player {
  /** The beat whose end is shown; -1 is the start. */
  beat: number
  playing: boolean
  /** Seconds a count takes. */
  tempo: number
  frame: readonly number[]
  setTempo: (seconds: number) => void
  go: (beat: number) => void
  play: () => void
  pause: () => void
}

const still = () => window.matchMedia('(prefers-reduced-motion: reduce)').matches

/** Plays a walk count by count. While it runs only the moving feet are redrawn, through the stage's handle; React hears of each count once. */
export function usePlayer(
  start: readonly number[],
  beats: readonly PlayedBeat[],
  stage: RefObject<FloorHandle | null>,
  /** Hears of every moment: which beat, and how much of it has passed. */
  moment?: (beat: number, part: number) => void,
  /** Which beat is shown before anything is played; the start unless it is said. */
  first = -1,
): Player {
  const [beat, setBeat] = useState(first)
  const [playing, setPlaying] = useState(false)
  const [tempo, setTempo] = useState(2)
  const speed = useRef(tempo)
  const hears = useRef(moment)
  useEffect(() => {
    speed.current = tempo
    hears.current = moment
  }, [tempo, moment])

  const ends = useMemo(() => {
    const after: (readonly number[])[] = []
    for (const one of beats) after.push(one.frames.at(-1) ?? after.at(-1) ?? start)
    return after
  }, [start, beats])
  const here = Math.min(beat, beats.length - 1)
  const frame = here < 0 ? start : ends[here]!

  useEffect(() => {
    if (!playing) return
    let at = here + 1
    let since = 0
    let before = 0
    let request = 0
    const step = (now: number) => {
      since += before === 0 ? 0 : Math.min(now - before, 100) / 1000
      before = now
      const one = beats[at]
      if (!one) {
        setPlaying(false)
        return
      }
      const part = Math.min(1, since / speed.current)
      if (!still()) {
        hears.current?.(at, part)
        const place = part * one.frames.length
        const here = Math.min(Math.floor(place), one.frames.length - 1)
        if (here >= 0)
          stage.current?.show(
            here === 0 ? (at === 0 ? start : ends[at - 1]!) : one.frames[here - 1]!,
            one.frames[here]!,
            ease(Math.min(1, place - here)),
          )
      }
      if (part >= 1) {
        setBeat(at)
        at += 1
        since = 0
      }
      request = requestAnimationFrame(step)
    }
    request = requestAnimationFrame(step)
    return () => cancelAnimationFrame(request)
    // Where it starts from is read once; after that the loop itself says where it is.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [playing, beats, ends, start, stage])

  return {
    beat: here,
    playing,
    tempo,
    frame,
    setTempo,
    go: (to) => {
      setPlaying(false)
      setBeat(Math.max(-1, Math.min(beats.length - 1, to)))
    },
    play: () => {
      if (here >= beats.length - 1) setBeat(-1)
      setPlaying(true)
    },
    pause: () => setPlaying(false),
  }
}

/** Weight flows: slow at both ends of a movement. */
const ease = (part: number) => part * part * (3 - 2 * part)
