import type { ReactNode } from 'react'

interface RowsProps<T> {
  label: string
  items: readonly T[]
  add: string
  make: () => T
  onChange: (items: T[]) => void
  children: (item: T, change: (part: Partial<T>) => void, at: number) => ReactNode
}

/** A list that is edited in place: rows can be added, moved and taken out. */
export function Rows<T>({ label, items, add, make, onChange, children }: RowsProps<T>) {
  return (
    <fieldset className="grid gap-3">
      <legend className="mb-1 font-serif text-base font-semibold">{label}</legend>
      {items.map((item, at) => (
        <RowFrame
          key={at}
          label={label}
          at={at}
          up={() => onChange(items.toSpliced(at, 1).toSpliced(at - 1, 0, item))}
          takeOut={() => onChange(items.toSpliced(at, 1))}
        >
          {children(
            item,
            (part) => onChange(items.map((one, index) => (index === at ? { ...one, ...part } : one))),
            at,
          )}
        </RowFrame>
      ))}
      <button type="button" className="button justify-self-start" onClick={() => onChange([...items, make()])}>
        {add}
      </button>
    </fieldset>
  )
}

/** One row of such a list, with what moves it and takes it out. */
export function RowFrame({
  label,
  at,
  up,
  takeOut,
  children,
}: {
  label: string
  at: number
  up: () => void
  takeOut: () => void
  children: ReactNode
}) {
  return (
    <div className="grid grid-cols-[1fr_auto] gap-3 border-b border-fine pb-3">
      <div className="grid gap-2">{children}</div>
      <div className="flex flex-col gap-1">
        <button
          type="button"
          className="quiet-link"
          aria-label={`Move up ${at + 1} of ${label}`}
          disabled={at === 0}
          onClick={up}
        >
          Up
        </button>
        <button type="button" className="quiet-link" aria-label={`Take out ${at + 1} of ${label}`} onClick={takeOut}>
          Take out
        </button>
      </div>
    </div>
  )
}

/** Texts, one to a line. */
export function Lines({
  label,
  value,
  onChange,
  error,
  readOnly,
  rows = 2,
}: {
  label: string
  value: readonly string[]
  onChange: (value: string[]) => void
  error?: string
  readOnly?: boolean
  rows?: number
}) {
  return (
    <label className="grid gap-1 font-semibold">
      {label}
      <textarea
        className="field font-normal"
        rows={Math.max(rows, value.length)}
        readOnly={readOnly}
        value={value.join('\n')}
        onChange={(event) => onChange(event.target.value.split('\n'))}
        onBlur={(event) =>
          onChange(
            event.target.value
              .split('\n')
              .map((line) => line.trim())
              .filter(Boolean),
          )
        }
        aria-invalid={error !== undefined}
      />
      {error && (
        <span role="alert" className="font-normal text-lacquer">
          {error}
        </span>
      )}
    </label>
  )
}
