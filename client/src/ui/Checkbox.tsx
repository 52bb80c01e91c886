import { Check, Minus } from 'lucide-react'
import { Checkbox as Primitive } from 'radix-ui'
import { useId, type ReactNode } from 'react'

interface CheckboxProps {
  checked: boolean | 'indeterminate'
  onChange: (checked: boolean) => void
  /** What is agreed to; with `label` instead where the place is too small for words. */
  children?: ReactNode
  label?: string
  hint?: ReactNode
  disabled?: boolean
  className?: string
  /** Its place in a grid. */
  grid?: string
}

/** Yes or no, each for itself. */
export function Checkbox({ checked, onChange, children, label, hint, disabled, className = '', grid }: CheckboxProps) {
  const id = useId()
  return (
    <span className={`flex items-start gap-2 ${className}`}>
      <Primitive.Root
        id={id}
        aria-label={label}
        checked={checked}
        disabled={disabled}
        onCheckedChange={(now) => onChange(now === true)}
        className="tick mt-px"
        data-grid={grid}
        tabIndex={grid === undefined ? undefined : -1}
      >
        <Primitive.Indicator>
          {checked === 'indeterminate' ? (
            <Minus size={14} strokeWidth={3} aria-hidden />
          ) : (
            <Check size={14} strokeWidth={3} aria-hidden />
          )}
        </Primitive.Indicator>
      </Primitive.Root>
      {children !== undefined && (
        <label htmlFor={id} className="min-w-0">
          {children}
          {hint && <span className="block font-normal text-soft">{hint}</span>}
        </label>
      )}
    </span>
  )
}
