import { useId, type ReactNode } from 'react'

interface FieldProps {
  label: string
  value: string
  onChange: (value: string) => void
  error?: string
  type?: string
  required?: boolean
  autoComplete?: string
  min?: number
  max?: number
}

/** A labelled input with what is wrong with it right below. */
export function Field({ label, value, onChange, error, ...input }: FieldProps) {
  const id = useId()
  return (
    <div className="grid min-w-0 content-start gap-1">
      <label htmlFor={id} className="font-semibold">
        {label}
      </label>
      <input
        id={id}
        className="field w-full min-w-0"
        value={value}
        onChange={(event) => onChange(event.target.value)}
        aria-invalid={error !== undefined}
        aria-describedby={error && `${id}-error`}
        {...input}
      />
      <FieldError id={`${id}-error`} error={error} />
    </div>
  )
}

/** A labelled choice with what is wrong with it right below. */
export function Choice({
  label,
  value,
  onChange,
  error,
  children,
}: {
  label: string
  value: string
  onChange: (value: string) => void
  error?: string
  children: ReactNode
}) {
  const id = useId()
  return (
    <div className="grid min-w-0 content-start gap-1">
      <label htmlFor={id} className="font-semibold">
        {label}
      </label>
      <select
        id={id}
        className="field w-full min-w-0"
        value={value}
        onChange={(event) => onChange(event.target.value)}
        aria-invalid={error !== undefined}
        aria-describedby={error && `${id}-error`}
      >
        {children}
      </select>
      <FieldError id={`${id}-error`} error={error} />
    </div>
  )
}

export function FieldError({ id, error }: { id?: string; error?: string }) {
  return error ? (
    <p id={id} role="alert" className="text-lacquer">
      {error}
    </p>
  ) : null
}
