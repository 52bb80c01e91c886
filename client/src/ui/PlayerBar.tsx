import { Pause, Play, SkipBack, StepBack, StepForward } from 'lucide-react'
import { Kbd } from './Kbd'
import { Slider } from './Slider'
import { Toolbar, ToolbarButton } from './Toolbar'
import { Option, Select } from './Select'

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
      <Toolbar label="Play">
        <ToolbarButton className="button px-2.5" aria-label="To the start" onClick={() => go(-1)}>
          <SkipBack size={18} aria-hidden />
        </ToolbarButton>
        <ToolbarButton
          className="button px-2.5"
          aria-label="One count back"
          disabled={beat < 0}
          onClick={() => go(beat - 1)}
        >
          <StepBack size={18} aria-hidden />
        </ToolbarButton>
        <ToolbarButton className="button w-24" onClick={playing ? pause : play} disabled={beats === 0}>
          {playing ? <Pause size={18} aria-hidden /> : <Play size={18} aria-hidden />}
          {playing ? 'Pause' : 'Play'}
        </ToolbarButton>
        <ToolbarButton
          className="button px-2.5"
          aria-label="One count on"
          disabled={beat >= beats - 1}
          onClick={() => go(beat + 1)}
        >
          <StepForward size={18} aria-hidden />
        </ToolbarButton>
      </Toolbar>
      <Slider label="Count" min={-1} max={beats - 1} value={beat} onChange={go} says={says} />
      <span className="flex items-center gap-2 text-soft">
        a count
        <Select label="Seconds a count" value={String(tempo)} onChange={(seconds) => setTempo(Number(seconds))}>
          {['0.5', '1', '2', '4', '6'].map((seconds) => (
            <Option key={seconds} value={seconds}>
              {`${seconds} s`}
            </Option>
          ))}
        </Select>
      </span>
      {keys && (
        <span className="hidden text-soft 2xl:inline">
          <Kbd>Space</Kbd> <Kbd>,</Kbd> <Kbd>.</Kbd>
        </span>
      )}
    </div>
  )
}
