import { hashKey } from '@tanstack/react-query'
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react'
import { useForm, useWatch, type Control, type DefaultValues, type FieldValues, type Path } from 'react-hook-form'
import { Problem } from '../api/problem'
import { newId } from '../ui/new-id'
import { sharing } from '../ui/use-shared'
import { leaving } from './leaving'

interface Pinned<T, V> {
  text: T
  version: V | null
}

interface Source<T, V> {
  /** What it is a draft of, such as ['posture', id]; what is written is kept under this name through a reload. */
  about: readonly string[]
  /** As it goes on after "You have not saved …": "the posture Press". */
  what: string
  /** What is kept now, and its version; null for something new. */
  text: T
  version: V | null
  /** False for what must not lie about in the browser, such as limits and passwords. */
  survivesReload?: boolean
}

/** @typeParam V Its version; more than one where it is a part of several things. */
export interface Draft<T extends FieldValues, V = number> {
  control: Control<T>
  /** The name of what is written here, where it is new; another one once that is saved, for what is written here after it. */
  made: string
  /** As it stands now, typed words and all. */
  text: T
  /** The version that `text` was begun from: what a save must carry, however often newer ones have been read meanwhile. */
  version: V | null
  dirty: boolean
  /** Somebody else has saved since this was begun. */
  stale: boolean
  /** Parts that are written anew, or what becomes of the text as it stands. The same function as long as the draft is. */
  change: (part: Partial<T> | ((text: T) => Partial<T>)) => void
  /** Why the last save was refused; what concerns a field stands beside the field as well. */
  problem: Error | null
  /** What is said about a field, by its path: "hours[0].to". */
  at: (field: string) => string | undefined
  /** Hands out text and version to be saved, when every field is well filled in. For a form's onSubmit, or to be called. */
  submit: (
    save: (text: T, version: V | null) => Promise<unknown>,
    /** What follows a save where the form is still on the screen, such as closing it. */
    then?: () => void,
  ) => (event?: React.FormEvent) => void
  saving: boolean
  /** Leaves it as it was, and takes what is kept now. */
  forget: () => void
  /** Keeps these words, to be saved over what somebody else has saved. */
  insist: () => void
}

/** Read the same, in whatever order their parts were written. */
const same = (a: unknown, b: unknown) => hashKey([a]) === hashKey([b])

/** "hours[0].to" as fields are registered: "hours.0.to". */
export const fieldPath = (serverPath: string) => serverPath.replace(/\[(\d+)\]/g, '.$1')

/**
 * What is being written: text and version pinned together, so that a save can never carry newer proof than the words it is about.
 * An untouched draft follows what is kept; a touched one stays as it was begun, asks before it is left, and survives a reload.
 */
export function useDraft<T extends FieldValues, V = number>(source: Source<T, V>): Draft<T, V> {
  const key = `zeitplan draft ${source.about.join(' ')}`
  const survives = source.survivesReload !== false
  const [kept] = useState(() => (survives ? recall<T, V>(key) : undefined))
  const [base, setBase] = useState<Pinned<T, V>>(kept?.base ?? { text: source.text, version: source.version })
  const [problem, setProblem] = useState<Error | null>(null)
  const [saving, setSaving] = useState(false)
  const [made, setMade] = useState(newId)
  const form = useForm<T>({ defaultValues: (kept?.text ?? source.text) as DefaultValues<T> })
  // The form's store copies all of it for every key; whatever is drawn from the rest is not drawn anew.
  const [share] = useState(sharing<T>)
  const text = useWatch({ control: form.control, compute: share })
  const [reads, begun] = [useMemo(() => hashKey([text]), [text]), useMemo(() => hashKey([base.text]), [base.text])]
  const dirty = reads !== begun

  const rebase = useCallback(
    (next: Pinned<T, V>) => {
      setBase(next)
      setProblem(null)
      form.reset(next.text)
    },
    [form],
  )
  // What has no version of its own is followed by its words.
  const moved = !same(source.version, base.version) || (source.version === null && !same(source.text, base.text))
  // Before anybody can write: a field that is free again and still shows what was saved would lose the first words.
  useLayoutEffect(() => {
    // oxlint-disable-next-line react/set-state-in-effect -- the form's own store has to be told together with ours
    if (!dirty && moved && !saving) rebase({ text: source.text, version: source.version })
  }, [dirty, moved, saving, source.text, source.version, rebase])

  // What it was begun from does not change with every key.
  useEffect(() => {
    if (survives && dirty) sessionStorage.setItem(begunAs(key), JSON.stringify(base))
  }, [survives, dirty, key, base])
  useEffect(() => {
    if (!survives) return
    if (dirty) sessionStorage.setItem(key, JSON.stringify(text))
    else unkeep(key)
  }, [survives, dirty, key, text])

  const forget = useCallback(() => {
    unkeep(key)
    rebase({ text: source.text, version: source.version })
  }, [key, rebase, source.text, source.version])
  const latestForget = useRef(forget)
  useEffect(() => {
    latestForget.current = forget
  })
  const isSaving = useRef(false)
  const release = useRef<() => boolean>(undefined)
  useEffect(() => {
    if (!dirty) return
    const letGo = leaving.hold(key, {
      what: source.what,
      forget: () => latestForget.current(),
      isSaving: () => isSaving.current,
    })
    release.current = letGo
    return () => void letGo()
  }, [dirty, key, source.what])

  const here = useRef(false)
  useEffect(() => {
    here.current = true
    return () => {
      here.current = false
    }
  }, [])
  const refuse = (error: Error) => {
    setProblem(error)
    if (error instanceof Problem)
      for (const [field, messages] of Object.entries(error.fields))
        form.setError(fieldPath(field) as Path<T>, { type: 'server', message: messages.join(' ') })
  }
  const submit: Draft<T, V>['submit'] = (save, then) => (event) => {
    event?.preventDefault()
    form.clearErrors()
    setProblem(null)
    void form.handleSubmit(async () => {
      setSaving((isSaving.current = true))
      const sent = form.getValues()
      try {
        await save(sent, base.version)
        unkeep(key)
        setMade(newId())
        const went = release.current?.() ?? false
        setBase({ text: sent, version: base.version })
        if (here.current && !went) then?.()
      } catch (error) {
        refuse(error as Error)
      } finally {
        setSaving((isSaving.current = false))
        leaving.refused()
      }
    })()
  }
  const change = useMemo(
    () => (part: Partial<T> | ((text: T) => Partial<T>)) => {
      if (isSaving.current) return
      for (const [name, value] of Object.entries(typeof part === 'function' ? part(form.getValues()) : part))
        form.setValue(name as Path<T>, value as never, { shouldDirty: true })
    },
    [form],
  )
  const at = useCallback((field: string) => (problem instanceof Problem ? problem.at(field) : undefined), [problem])
  return {
    control: form.control,
    made,
    text,
    version: base.version,
    dirty,
    stale: dirty && moved && !saving,
    change,
    problem,
    at,
    submit,
    saving,
    forget,
    insist: () => {
      setProblem(null)
      setBase({ text: source.text, version: source.version })
    },
  }
}

/** Beside the words of a draft: what they were begun from. */
const begunAs = (key: string) => `${key} from`

function unkeep(key: string) {
  sessionStorage.removeItem(key)
  sessionStorage.removeItem(begunAs(key))
}

function recall<T, V>(key: string): { base: Pinned<T, V>; text: T } | undefined {
  const [text, base] = [sessionStorage.getItem(key), sessionStorage.getItem(begunAs(key))]
  if (text === null || base === null) return undefined
  try {
    return { base: JSON.parse(base) as Pinned<T, V>, text: JSON.parse(text) as T }
  } catch {
    // Written by somebody else: of no use.
    unkeep(key)
    return undefined
  }
}

/** Whoever signs out leaves no words behind for the next person at this screen. */
export function forgetDrafts() {
  for (const key of Object.keys(sessionStorage)) if (key.startsWith('zeitplan draft ')) sessionStorage.removeItem(key)
}
