import { CalendarDays } from 'lucide-react'
import { useId, useRef, useState, type ReactNode } from 'react'
import { readDate, readNumber, readTime } from './dates'
import { Label } from './Label'
import { Select, type SelectProps } from './Select'
import { fieldDate } from './words'
import { number, writing } from './writing'

interface Labelled {
  label: string
  /** What is wrong with it, said right below. */
  error?: string
  /** It can be read and has the focus, and is not written in just now. */
  readOnly?: boolean
}

interface FieldProps extends Labelled {
  value: string
  onChange: (value: string) => void
  onBlur?: () => void
  type?: string
  required?: boolean
  autoComplete?: string
  maxLength?: number
  placeholder?: string
  spellCheck?: boolean
  /** What is likely meant, offered while it is written; anything else can be written, too. */
  suggestions?: readonly string[]
}

/** A name above, what is wrong below, and between them whatever is filled in. */
function Framed({ id, label, error, children }: Labelled & { id: string; children: ReactNode }) {
  return (
    <div className="grid min-w-0 content-start gap-1">
      <Label of={id}>{label}</Label>
      {children}
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

/** A line of text. */
export function Field({ label, value, onChange, error, suggestions, ...input }: FieldProps) {
  const id = useId()
  return (
    <Framed id={id} label={label} error={error}>
      <input
        id={id}
        className="field w-full min-w-0"
        value={value}
        onChange={(event) => onChange(event.target.value)}
        aria-invalid={error !== undefined}
        aria-describedby={error && `${id}-error`}
        list={suggestions && `${id}-suggestions`}
        {...input}
      />
      {suggestions && (
        <datalist id={`${id}-suggestions`}>
          {suggestions.map((one) => (
            <option key={one} value={one} />
          ))}
        </datalist>
      )}
    </Framed>
  )
}

/** One of a few. */
export function Choice<T extends string>({
  label,
  error,
  ...select
}: Labelled & Omit<SelectProps<T>, 'label' | 'id' | 'invalid' | 'describedBy'>) {
  const id = useId()
  return (
    <Framed id={id} label={label} error={error}>
      <Select
        {...select}
        id={id}
        invalid={error !== undefined}
        describedBy={error && `${id}-error`}
        className={`w-full ${select.className ?? ''}`}
      />
    </Framed>
  )
}

interface NumberFieldProps extends Labelled {
  /** Null while nothing is written. */
  value: number | null
  onChange: (value: number | null) => void
  onBlur?: () => void
  disabled?: boolean
  placeholder?: string
  className?: string
}

/** A number: it can be emptied while it is written, and takes a comma as well as a point. */
export function NumberField({
  label,
  value,
  onChange,
  onBlur,
  error,
  readOnly,
  disabled,
  placeholder,
}: NumberFieldProps) {
  const id = useId()
  const [text, setText] = useState(value === null ? '' : number(value))
  const [told, setTold] = useState(value)
  const read = readNumber(text)
  // What comes from elsewhere replaces what is written; "3," while 3 is meant stays as it is written.
  if (value !== told) {
    setTold(value)
    if (read !== value) setText(value === null ? '' : number(value))
  }
  const wrong = read === undefined ? 'This is no number.' : error
  return (
    <Framed id={id} label={label} error={wrong}>
      <input
        id={id}
        inputMode="decimal"
        autoComplete="off"
        className="field w-full min-w-0"
        value={text}
        readOnly={readOnly}
        disabled={disabled}
        placeholder={placeholder}
        onChange={(event) => {
          const meant = readNumber(event.target.value) ?? null
          setText(event.target.value)
          setTold(meant)
          onChange(meant)
        }}
        onBlur={onBlur}
        aria-invalid={wrong !== undefined}
        aria-describedby={wrong && `${id}-error`}
      />
    </Framed>
  )
}

interface DateFieldProps extends Labelled {
  /** As 2026-11-24; empty while there is none. */
  value: string
  onChange: (value: string) => void
}

/** A date in the school's own writing, or picked from a calendar. */
export function DateField({ label, value, onChange, error, readOnly }: DateFieldProps) {
  const id = useId()
  const picker = useRef<HTMLInputElement>(null)
  const [typed, setTyped] = useState<string>()
  const [today] = useState(() => new Date().toISOString().slice(0, 10))
  const near = value || today
  const wrong =
    typed !== undefined && typed.trim() !== '' && readDate(typed, near, writing().dates) === undefined
      ? `Write a date as ${fieldDate('2026-11-24')}.`
      : error
  return (
    <Framed id={id} label={label} error={typed === undefined || wrong === error ? error : wrong}>
      <div className="flex min-w-0 gap-1">
        <input
          id={id}
          autoComplete="off"
          className="field w-full min-w-0"
          readOnly={readOnly}
          value={typed ?? (value ? fieldDate(value) : '')}
          onChange={(event) => {
            setTyped(event.target.value)
            const read = readDate(event.target.value, near, writing().dates)
            if (read !== undefined || event.target.value.trim() === '') onChange(read ?? '')
          }}
          onBlur={() => wrong === error && setTyped(undefined)}
          aria-invalid={wrong !== undefined}
          aria-describedby={wrong && `${id}-error`}
        />
        <span className="relative">
          <button
            type="button"
            className="button px-2"
            aria-label="Calendar"
            aria-describedby={id}
            onClick={() => picker.current?.showPicker()}
          >
            <CalendarDays size={18} aria-hidden />
          </button>
          <input
            ref={picker}
            type="date"
            tabIndex={-1}
            aria-hidden
            className="pointer-events-none absolute inset-0 opacity-0"
            value={value}
            onChange={(event) => {
              setTyped(undefined)
              onChange(event.target.value)
            }}
          />
        </span>
      </div>
    </Framed>
  )
}

/** A time of day, kept as 18:30:00; empty while there is none. */
export function TimeField({ label, value, onChange, error, readOnly }: DateFieldProps) {
  const id = useId()
  const [typed, setTyped] = useState<string>()
  const wrong =
    typed !== undefined && typed.trim() !== '' && readTime(typed) === undefined ? 'Write a time as 18:30.' : error
  return (
    <Framed id={id} label={label} error={wrong}>
      <input
        id={id}
        autoComplete="off"
        inputMode="numeric"
        className="field w-full min-w-0"
        readOnly={readOnly}
        value={typed ?? value.slice(0, 5)}
        onChange={(event) => {
          setTyped(event.target.value)
          const read = readTime(event.target.value)
          if (read !== undefined || event.target.value.trim() === '') onChange(read ?? '')
        }}
        onBlur={() => wrong === error && setTyped(undefined)}
        aria-invalid={wrong !== undefined}
        aria-describedby={wrong && `${id}-error`}
      />
    </Framed>
  )
}
