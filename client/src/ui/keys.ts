import { useEffect, useRef } from 'react'

const OFF = 'zeitplan single keys'

/** Whether single letters do something. Whoever speaks to their computer, or touches keys by accident, switches them off. */
export const singleKeys = {
  areOn: () => localStorage.getItem(OFF) !== 'off',
  set: (on: boolean) => localStorage.setItem(OFF, on ? 'on' : 'off'),
}

/** Keys for the whole screen: not while somebody types, and not with a modifier. The handler says whether it took the key. */
export function useKeys(handle: (event: KeyboardEvent) => boolean) {
  const latest = useRef(handle)
  useEffect(() => {
    latest.current = handle
  })
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement
      if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey) return
      if (target.matches('input, textarea, [role=combobox], [role=listbox] *, [role=menu] *, [role=menu]')) return
      if (event.key !== 'Escape' && !singleKeys.areOn()) return
      if (latest.current(event)) event.preventDefault()
    }
    window.addEventListener('keydown', listen)
    return () => window.removeEventListener('keydown', listen)
  }, [])
}
