import { useState } from 'react'

/** What stands open beside a list. A save that is answered late closes what it was about, and nothing that was opened since. */
export function useOpened<T>() {
  const [opened, open] = useState<T>()
  const close = () => open((now) => (now === opened ? undefined : now))
  return { opened, open, close }
}
