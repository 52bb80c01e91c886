import { Label as Primitive } from 'radix-ui'
import type { ReactNode } from 'react'

/** The name of a field. A double click on it selects no text, a click goes to the field. */
export function Label({ of, hidden = false, children }: { of: string; hidden?: boolean; children: ReactNode }) {
  return (
    <Primitive.Root htmlFor={of} className={hidden ? 'sr-only' : 'font-semibold'}>
      {children}
    </Primitive.Root>
  )
}
