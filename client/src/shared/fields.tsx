import type { ReactNode } from 'react'
import {
  useController,
  useFieldArray,
  type ArrayPath,
  type FieldArray,
  type FieldValues,
  type Path,
} from 'react-hook-form'
import { Problem } from '../api/problem'
import { Checkbox } from '../ui/Checkbox'
import { Choice, DateField, Field, NumberField, TimeField } from '../ui/Field'
import { Lines, RowFrame } from '../ui/Rows'
import { steadyPress } from '../ui/steady-press'
import type { Draft } from './draft'

interface Named<T extends FieldValues> {
  draft: Draft<T, unknown>
  name: Path<T>
  label: string
}

/** One field of a draft: its value, and what is wrong with it. While it is being saved nothing is written: nobody could say where it went. */
function useField<T extends FieldValues>(
  draft: Draft<T, unknown>,
  name: Path<T>,
  check?: (value: unknown) => true | string,
) {
  const { field, fieldState } = useController({ control: draft.control, name, rules: check && { validate: check } })
  return {
    value: field.value as unknown,
    onChange: (value: unknown) => {
      if (!draft.saving) field.onChange(value)
    },
    onBlur: field.onBlur,
    error: fieldState.error?.message,
    readOnly: draft.saving,
  }
}

export function TextField<T extends FieldValues>({
  draft,
  name,
  label,
  ...input
}: Named<T> & { type?: string; autoComplete?: string; maxLength?: number; placeholder?: string }) {
  const { value, ...field } = useField(draft, name)
  return <Field label={label} value={(value as string | null) ?? ''} {...field} {...input} />
}

export function NumberInput<T extends FieldValues>({
  draft,
  name,
  label,
  mayBeEmpty = false,
  disabled,
}: Named<T> & { mayBeEmpty?: boolean; disabled?: boolean }) {
  const { value, ...field } = useField(
    draft,
    name,
    mayBeEmpty ? undefined : (now) => (typeof now === 'number' ? true : 'Give a number.'),
  )
  return <NumberField label={label} value={(value as number | null) ?? null} disabled={disabled} {...field} />
}

/** @param mayBeEmpty Then an empty field is null. */
export function DateInput<T extends FieldValues>({
  draft,
  name,
  label,
  mayBeEmpty = false,
}: Named<T> & { mayBeEmpty?: boolean }) {
  const { value, onChange, error, readOnly } = useField(
    draft,
    name,
    mayBeEmpty ? undefined : (now) => (now ? true : 'Give a date.'),
  )
  return (
    <DateField
      label={label}
      value={(value as string | null) ?? ''}
      onChange={(date) => onChange(mayBeEmpty ? date || null : date)}
      error={error}
      readOnly={readOnly}
    />
  )
}

/** The time of day, kept with seconds as the server writes it. */
export function TimeInput<T extends FieldValues>({ draft, name, label }: Named<T>) {
  const { value, onChange, error, readOnly } = useField(draft, name, (now) => (now ? true : 'Give a time.'))
  const written = { value: (value as string | null) ?? '', onChange, error, readOnly }
  return <TimeField label={label} {...written} />
}

/**
 * @param nothing The empty option is null.
 * @param then What follows for other fields from choosing this.
 */
export function ChoiceField<T extends FieldValues>({
  draft,
  name,
  label,
  children,
  placeholder,
  nothing = false,
  then,
}: Named<T> & { children: ReactNode; placeholder?: string; nothing?: boolean; then?: (value: string) => void }) {
  const { value, onChange, error } = useField(draft, name)
  return (
    <Choice
      label={label}
      value={(value as string | null) ?? ''}
      placeholder={placeholder}
      error={error}
      onChange={(chosen) => {
        onChange(nothing ? chosen || null : chosen)
        then?.(chosen)
      }}
    >
      {children}
    </Choice>
  )
}

export function CheckField<T extends FieldValues>({ draft, name, label, hint }: Named<T> & { hint?: ReactNode }) {
  const { value, onChange } = useField(draft, name)
  return (
    <Checkbox checked={value === true} onChange={onChange} hint={hint}>
      {label}
    </Checkbox>
  )
}

export function LinesField<T extends FieldValues>({ draft, name, label, rows }: Named<T> & { rows?: number }) {
  const { value, onChange, error, readOnly } = useField(draft, name)
  const written = { value: value as string[], onChange, error, readOnly }
  return <Lines label={label} rows={rows} {...written} />
}

interface DraftRowsProps<T extends FieldValues, Name extends ArrayPath<T>> {
  draft: Draft<T, unknown>
  name: Name
  label: string
  add: string
  make: () => FieldArray<T, Name>
  /** A row's fields, by the path they begin with: "hours.0". */
  children: (path: string, at: number, row: FieldArray<T, Name>) => ReactNode
}

/** A list of a draft: rows can be added, moved and taken out, and keep what is typed in them. */
export function DraftRows<T extends FieldValues, Name extends ArrayPath<T>>({
  draft,
  name,
  label,
  add,
  make,
  children,
}: DraftRowsProps<T, Name>) {
  const { fields, append, remove, move } = useFieldArray({ control: draft.control, name })
  const now = name
    .split('.')
    .reduce<unknown>((value, part) => (value as Record<string, unknown>)?.[part], draft.text) as
    FieldArray<T, Name>[] | undefined
  return (
    <fieldset className="grid gap-3">
      <legend className="mb-1 font-serif text-base font-semibold">{label}</legend>
      {fields.map((field, at) => (
        <RowFrame key={field.id} label={label} at={at} up={() => move(at, at - 1)} takeOut={() => remove(at)}>
          {children(`${name}.${at}`, at, now?.[at] ?? (field as unknown as FieldArray<T, Name>))}
        </RowFrame>
      ))}
      <button type="button" className="button justify-self-start" onClick={() => append(make())}>
        {add}
      </button>
    </fieldset>
  )
}

/** Why a draft could not be saved, what of it stands beside no field, and the two ways on when somebody else was quicker. */
export function DraftProblem<T extends FieldValues>({
  draft,
  shown,
}: {
  draft: Draft<T, unknown>
  shown: (field: string) => boolean
}) {
  const { problem } = draft
  if (!problem && !draft.stale) return null
  const details = problem instanceof Problem ? problem : undefined
  const others = details ? Object.entries(details.fields).filter(([field]) => !shown(field)) : []
  const clash = draft.stale || (details?.status === 409 && details.kind !== 'same-name')
  return (
    <div role="alert" className={`border-l-4 pl-3 ${problem ? 'border-lacquer' : 'border-ochre-mark'}`}>
      <p className="font-semibold">
        {problem?.message ?? 'Somebody else has saved this while you were writing. Your words are still here.'}
      </p>
      {(details?.changes.length ?? 0) + others.length > 0 && (
        <ul>
          {[...(details?.changes ?? []), ...others.flatMap(([, messages]) => messages)].map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      )}
      {clash && (
        <p className="mt-1 flex flex-wrap gap-4">
          <button type="button" className="quiet-link" onClick={draft.forget}>
            Show what is there now
          </button>
          {draft.stale && (
            <button type="button" className="quiet-link" onClick={draft.insist}>
              Keep mine, to save it over theirs
            </button>
          )}
        </p>
      )}
    </div>
  )
}

interface SaveBarProps<T extends FieldValues> {
  draft: Draft<T, unknown>
  /** "Save the class". */
  save: string
  /** What Cancel does: usually closes the panel. Words that are not saved are asked about first. */
  cancel?: () => void
}

/** Save and Cancel, and nothing else by these names. */
export function SaveBar<T extends FieldValues>({ draft, save, cancel }: SaveBarProps<T>) {
  return (
    <div className="flex flex-wrap gap-3">
      <button type="submit" className="button button-primary" disabled={draft.saving} onPointerDown={steadyPress}>
        {save}
      </button>
      {cancel && (
        <button type="button" className="button" onClick={cancel}>
          Cancel
        </button>
      )}
    </div>
  )
}
