import { Pause, Play, SkipBack, StepBack, StepForward } from 'lucide-react'
import { Kbd } from './Kbd'

interface PlayerBarProps {
  beat: number
  beats: number
  playing: boolean
  tempo: number
  says: string
  setTempo: (seconds: number) => void
  go: (beat: number) => void
  play: () => void
  pause: () => void
  /** Whether the keys work here too. */
  keys?: boolean
}

/** Play, pause, step by count, tempo; what is done now in words. */
export function PlayerBar({
  beat,
  beats,
  playing,
  tempo,
  says,
  setTempo,
  go,
  play,
  pause,
  keys = false,
}: PlayerBarProps) {
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-2 border-t border-line bg-paper px-4 py-2">
      <p className="line-clamp-2 min-h-6 w-full" aria-live={playing ? 'off' : 'polite'}>
        {says}
      </p>
      <div className="flex gap-1.5">
        <button type="button" className="button px-2.5" aria-label="To the start" onClick={() => go(-1)}>
          <SkipBack size={18} aria-hidden />
        </button>
        <button
          type="button"
          className="button px-2.5"
          aria-label="One count back"
          disabled={beat < 0}
          onClick={() => go(beat - 1)}
        >
          <StepBack size={18} aria-hidden />
        </button>
        <button type="button" className="button w-24" onClick={playing ? pause : play} disabled={beats === 0}>
          {playing ? <Pause size={18} aria-hidden /> : <Play size={18} aria-hidden />}
          {playing ? 'Pause' : 'Play'}
        </button>
        <button
          type="button"
          className="button px-2.5"
          aria-label="One count on"
          disabled={beat >= beats - 1}
          onClick={() => go(beat + 1)}
        >
          <StepForward size={18} aria-hidden />
        </button>
      </div>
      <label className="flex items-center gap-2">
        <input
          type="range"
          className="w-32 accent-pine"
          min={-1}
          max={beats - 1}
          value={beat}
          aria-label="Count"
          onChange={(event) => go(Number(event.target.value))}
        />
      </label>
      <label className="flex items-center gap-2 text-soft">
        a count
        <select className="field" value={tempo} onChange={(event) => setTempo(Number(event.target.value))}>
          {[0.5, 1, 2, 4, 6].map((seconds) => (
            <option key={seconds} value={seconds}>
              {seconds} s
            </option>
          ))}
        </select>
      </label>
      {keys && (
        <span className="hidden text-soft 2xl:inline">
          <Kbd>Space</Kbd> <Kbd>,</Kbd> <Kbd>.</Kbd>
        </span>
      )}
    </div>
  )
}
