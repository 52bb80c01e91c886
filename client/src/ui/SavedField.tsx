import { useId, useState } from 'react'
import { Label } from './Label'
import { readNumber } from './dates'

interface SavedFieldProps {
  label: string
  value: string
  /** Called with what was written when it is left or Enter is pressed, if it has changed. */
  save: (value: string) => void
  placeholder?: string
  maxLength?: number
}

/** A field that is saved when it is left. While it is being written in, nothing from outside replaces the words. */
export function SavedField({ label, value, save, ...input }: SavedFieldProps) {
  const id = useId()
  const [typed, setTyped] = useState<string>()
  const keep = () => {
    if (typed !== undefined && typed !== value) save(typed)
    setTyped(undefined)
  }
  return (
    <div className="grid min-w-0 content-start gap-1">
      <Label of={id}>{label}</Label>
      <input
        id={id}
        className="field w-full min-w-0"
        value={typed ?? value}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={keep}
        onKeyDown={(event) => {
          if (event.key === 'Enter') keep()
          if (event.key === 'Escape' && typed !== undefined) {
            event.preventDefault()
            setTyped(undefined)
          }
        }}
        {...input}
      />
    </div>
  )
}

/** The same for a number; what is none is not saved. */
export function SavedNumber({
  label,
  value,
  save,
  placeholder,
}: {
  label: string
  value: number | null
  save: (value: number | null) => void
  placeholder?: string
}) {
  return (
    <SavedField
      label={label}
      value={value === null ? '' : String(value)}
      placeholder={placeholder}
      save={(text) => {
        const number = readNumber(text)
        if (number !== undefined) save(number)
      }}
    />
  )
}
