import { ToggleGroup as Primitive } from 'radix-ui'
import type { ReactNode } from 'react'

interface ToggleGroupProps<T extends string> {
  label: string
  value: T
  options: readonly { value: T; name: ReactNode; says?: string }[]
  onChange: (value: T) => void
  /** Drawn without a frame of its own, such as a row of dials. */
  bare?: boolean
  className?: string
}

/** One of a few ways to see the same thing, all of them in sight. */
export function ToggleGroup<T extends string>({
  label,
  value,
  options,
  onChange,
  bare = false,
  className = '',
}: ToggleGroupProps<T>) {
  return (
    <Primitive.Root
      type="single"
      aria-label={label}
      value={value}
      // Pressing the one that is on again would mean none of them.
      onValueChange={(chosen) => chosen && onChange(chosen as T)}
      className={`inline-flex max-w-full flex-wrap justify-self-start ${bare ? '' : 'rounded-md border border-edge bg-white max-md:flex-nowrap max-md:overflow-x-auto'} ${className}`}
    >
      {options.map((option) => (
        <Primitive.Item
          key={option.value}
          value={option.value}
          aria-label={option.says}
          className={
            bare
              ? 'grid min-h-9 min-w-9 place-items-center rounded hover:bg-plaster data-[state=on]:bg-pine-tint'
              : 'min-h-9 shrink-0 rounded-[5px] px-3.5 py-1.5 font-semibold text-soft hover:text-ink data-[state=on]:bg-pine-tint data-[state=on]:text-pine'
          }
        >
          {option.name}
        </Primitive.Item>
      ))}
    </Primitive.Root>
  )
}
