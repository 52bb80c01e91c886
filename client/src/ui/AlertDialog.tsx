import { AlertDialog as Primitive } from 'radix-ui'
import type { ReactNode } from 'react'

interface AlertDialogProps {
  open: boolean
  title: string
  children: ReactNode
  /** What is done about it, on the button that does it. */
  act: string
  /** What leaves everything as it is. */
  leave: string
  onAct: () => void
  onLeave: () => void
  busy?: boolean
}

/** Asked before what cannot be undone, and before nothing else. The way out has the focus. */
export function AlertDialog({ open, title, children, act, leave, onAct, onLeave, busy }: AlertDialogProps) {
  return (
    <Primitive.Root open={open} onOpenChange={(now) => !now && onLeave()}>
      <Primitive.Portal>
        <Primitive.Overlay className="fixed inset-0 z-70 bg-ink/35" />
        <Primitive.Content className="layer fixed top-1/2 left-1/2 z-80 w-[min(30rem,calc(100vw-2rem))] -translate-x-1/2 -translate-y-1/2 p-6">
          <Primitive.Title className="text-xl">{title}</Primitive.Title>
          <Primitive.Description asChild>
            <div className="mt-2 grid gap-2">{children}</div>
          </Primitive.Description>
          <div className="mt-5 flex flex-wrap justify-end gap-3">
            <Primitive.Cancel className="button">{leave}</Primitive.Cancel>
            <button type="button" className="button border-lacquer text-lacquer" disabled={busy} onClick={onAct}>
              {act}
            </button>
          </div>
        </Primitive.Content>
      </Primitive.Portal>
    </Primitive.Root>
  )
}
