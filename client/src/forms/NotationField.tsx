import { memo, useId, useMemo, useRef, useState } from 'react'
import type { Notation } from '../engine/engine'

interface NotationFieldProps {
  label: string
  value: string
  onChange: (value: string) => void
  /** Steps or body, once the rules are here. */
  notation: Notation | undefined
  /** Said by the server about this field. */
  error?: string
  hideLabel?: boolean
}

/** A line of notation, of steps or of the body: what it means in words, what is wrong with it and where, and the words that could come next. */
export const NotationField = memo(function NotationField({
  label,
  value,
  onChange,
  notation,
  error,
  hideLabel = false,
}: NotationFieldProps) {
  const id = useId()
  const field = useRef<HTMLTextAreaElement>(null)
  const [caret, setCaret] = useState<number | null>(null)
  const [picked, setPicked] = useState(0)
  const reading = useMemo(() => notation?.read(value), [notation, value])
  const problem = reading?.problems[0]
  const before = caret === null ? '' : value.slice(0, caret)
  const offers =
    caret === null || !notation || (caret < value.length && /\S/.test(value[caret]!))
      ? []
      : notation.complete(before).slice(0, 9)
  const begun = /[A-Za-z]*$/.exec(before)![0].length

  const take = (word: string) => {
    const ready = `${before.slice(0, before.length - begun)}${word}${word.length > 0 && /[A-Za-z]$/.test(word) ? ' ' : ''}`
    onChange(ready + value.slice(caret ?? value.length))
    setPicked(0)
    queueMicrotask(() => {
      field.current?.focus()
      field.current?.setSelectionRange(ready.length, ready.length)
      setCaret(ready.length)
    })
  }

  return (
    <div className="grid gap-1">
      <label htmlFor={id} className={hideLabel ? 'sr-only' : 'font-semibold'}>
        {label}
      </label>
      <div className="relative">
        <textarea
          ref={field}
          id={id}
          rows={Math.max(1, value.split('\n').length)}
          spellCheck={false}
          autoComplete="off"
          className="field block w-full resize-none field-sizing-content font-mono text-small leading-6"
          value={value}
          aria-invalid={problem !== undefined || error !== undefined}
          aria-describedby={`${id}-about`}
          onChange={(event) => {
            onChange(event.target.value)
            setCaret(event.target.selectionStart)
            setPicked(0)
          }}
          onSelect={(event) => setCaret(event.currentTarget.selectionStart)}
          onBlur={() => setCaret(null)}
          onKeyDown={(event) => {
            const open = offers.length > 0 && begun > 0
            if (open && (event.key === 'ArrowDown' || event.key === 'ArrowUp')) {
              event.preventDefault()
              setPicked((at) => (at + (event.key === 'ArrowDown' ? 1 : offers.length - 1)) % offers.length)
            } else if (open && event.key === 'Tab' && !event.shiftKey) {
              event.preventDefault()
              take(offers[picked]!)
            } else if (open && event.key === 'Escape') {
              event.stopPropagation()
              setCaret(null)
            }
          }}
        />
        <p
          id={`${id}-about`}
          className={`mt-1 ${problem || error ? 'text-lacquer' : 'text-soft'}`}
          role={problem || error ? 'alert' : undefined}
        >
          {problem ? `Line ${problem.line}, column ${problem.column}: ${problem.message}` : (error ?? reading?.says)}
        </p>
        {caret !== null && offers.length > 0 && (
          <ul
            role="listbox"
            aria-label="What could come next"
            className="absolute top-full left-0 z-20 mt-0.5 flex max-w-full flex-wrap gap-1 rounded-md border border-line bg-paper p-1.5 shadow-md"
          >
            {offers.map((word, at) => (
              <li key={word} role="option" aria-selected={begun > 0 && at === picked}>
                <button
                  type="button"
                  tabIndex={-1}
                  className={`rounded px-2 py-0.5 font-mono text-small ${begun > 0 && at === picked ? 'bg-pine-tint text-pine' : 'hover:bg-plaster'}`}
                  onMouseDown={(event) => {
                    event.preventDefault()
                    take(word)
                  }}
                >
                  {word}
                </button>
              </li>
            ))}
          </ul>
        )}
      </div>
    </div>
  )
})
