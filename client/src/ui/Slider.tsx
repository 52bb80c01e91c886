import { Slider as Primitive } from 'radix-ui'

interface SliderProps {
  label: string
  value: number
  min: number
  max: number
  step?: number
  onChange: (value: number) => void
  /** What the value is in words. */
  says?: string
  className?: string
}

/** A place between two ends. */
export function Slider({ label, value, min, max, step = 1, onChange, says, className = 'w-32' }: SliderProps) {
  return (
    <Primitive.Root
      value={[value]}
      min={min}
      // Two ends that are one would leave its place undefined.
      max={Math.max(min + step, max)}
      step={step}
      disabled={max <= min}
      onValueChange={([chosen]) => onChange(chosen!)}
      className={`relative flex h-6 touch-none items-center ${className}`}
    >
      <Primitive.Track className="relative h-1.5 flex-1 rounded-full bg-edge/50">
        <Primitive.Range className="absolute h-full rounded-full bg-pine" />
      </Primitive.Track>
      <Primitive.Thumb
        aria-label={label}
        aria-valuetext={says}
        className="block size-4.5 rounded-full border-2 border-pine bg-white"
      />
    </Primitive.Root>
  )
}
