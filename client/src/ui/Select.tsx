import { Check, ChevronDown } from 'lucide-react'
import { Select as Primitive } from 'radix-ui'
import type { ReactNode } from 'react'
import { styleNonce } from './nonce'

/** A primitive's item cannot have the empty value; ours often means "none of them". */
const NOTHING = '\u0000'
const inward = (value: string) => (value === '' ? NOTHING : value)
const outward = (value: string) => (value === NOTHING ? '' : value)

export interface SelectProps<T extends string> {
  value: T
  onChange: (value: T) => void
  /** Options and groups of them. */
  children: ReactNode
  id?: string
  /** Its name where no label stands beside it. */
  label?: string
  /** Shown while nothing is chosen; without it the empty value is an option like others. */
  placeholder?: string
  disabled?: boolean
  invalid?: boolean
  describedBy?: string
  className?: string
}

/** One of a few. Arrow keys open the list and never change anything by themselves. */
export function Select<T extends string>({
  value,
  onChange,
  children,
  id,
  label,
  placeholder,
  disabled,
  invalid,
  describedBy,
  className = '',
}: SelectProps<T>) {
  return (
    <Primitive.Root
      value={placeholder === undefined ? inward(value) : value}
      onValueChange={(chosen) => onChange(outward(chosen) as T)}
      disabled={disabled}
    >
      <Primitive.Trigger
        id={id}
        aria-label={label}
        aria-invalid={invalid || undefined}
        aria-describedby={describedBy}
        className={`field inline-flex min-w-0 items-center justify-between gap-2 text-left font-sans font-normal data-placeholder:text-soft ${className}`}
      >
        <span className="min-w-0 truncate">
          <Primitive.Value placeholder={placeholder} />
        </span>
        <Primitive.Icon asChild>
          <ChevronDown size={16} aria-hidden className="shrink-0 text-soft" />
        </Primitive.Icon>
      </Primitive.Trigger>
      <Primitive.Portal>
        <Primitive.Content
          position="popper"
          sideOffset={4}
          className="layer z-60 max-h-(--radix-select-content-available-height) min-w-(--radix-select-trigger-width) overflow-hidden p-1"
        >
          <Primitive.Viewport nonce={styleNonce()}>{children}</Primitive.Viewport>
        </Primitive.Content>
      </Primitive.Portal>
    </Primitive.Root>
  )
}

export function Option({ value, disabled, children }: { value: string; disabled?: boolean; children: ReactNode }) {
  return (
    <Primitive.Item value={inward(value)} disabled={disabled} className="layer-item pr-8">
      <Primitive.ItemText>{children}</Primitive.ItemText>
      <Primitive.ItemIndicator className="absolute right-2">
        <Check size={16} aria-hidden className="text-pine" />
      </Primitive.ItemIndicator>
    </Primitive.Item>
  )
}

export function OptionGroup({ label, children }: { label: string; children: ReactNode }) {
  return (
    <Primitive.Group>
      <Primitive.Label className="px-2.5 pt-2 pb-1 text-small text-soft">{label}</Primitive.Label>
      {children}
    </Primitive.Group>
  )
}
