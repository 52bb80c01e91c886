import { RadioGroup as Primitive } from 'radix-ui'
import { useId } from 'react'

interface RadioGroupProps<T extends string> {
  label: string
  value: T
  options: readonly { value: T; name: string }[]
  onChange: (value: T) => void
}

/** One of a few that all want to be read before one is chosen. */
export function RadioGroup<T extends string>({ label, value, options, onChange }: RadioGroupProps<T>) {
  const id = useId()
  return (
    <div className="grid gap-1">
      <span id={id} className="font-semibold">
        {label}
      </span>
      <Primitive.Root
        aria-labelledby={id}
        value={value}
        onValueChange={(chosen) => onChange(chosen as T)}
        className="grid gap-0.5"
      >
        {options.map((option) => (
          <span key={option.value} className="flex items-center gap-2">
            <Primitive.Item id={`${id}-${option.value}`} value={option.value} className="tick rounded-full!">
              <Primitive.Indicator className="size-2 rounded-full bg-white" />
            </Primitive.Item>
            <label htmlFor={`${id}-${option.value}`} className="py-1">
              {option.name}
            </label>
          </span>
        ))}
      </Primitive.Root>
    </div>
  )
}
