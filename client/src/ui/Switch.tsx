import { Switch as Primitive } from 'radix-ui'
import { useId, type ReactNode } from 'react'

interface SwitchProps {
  on: boolean
  onChange: (on: boolean) => void
  children: ReactNode
  hint?: ReactNode
}

/** On or off, in force at once. */
export function Switch({ on, onChange, children, hint }: SwitchProps) {
  const id = useId()
  return (
    <span className="inline-flex items-start gap-2.5">
      <Primitive.Root
        id={id}
        checked={on}
        onCheckedChange={onChange}
        className="mt-px h-5 w-9 shrink-0 rounded-full border border-edge bg-white p-0.5 data-[state=checked]:border-pine data-[state=checked]:bg-pine"
      >
        <Primitive.Thumb className="block size-3.5 rounded-full bg-edge transition-transform data-[state=checked]:translate-x-4 data-[state=checked]:bg-white" />
      </Primitive.Root>
      <label htmlFor={id}>
        {children}
        {hint && <span className="block text-soft">{hint}</span>}
      </label>
    </span>
  )
}
