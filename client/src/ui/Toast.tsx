import { Toast as Primitive } from 'radix-ui'
import type { ReactNode } from 'react'
import { Kbd } from './Kbd'

/** Around the application; toasts stand at the foot of the page. */
export function Toasts({ children }: { children: ReactNode }) {
  return (
    <Primitive.Provider duration={12_000} swipeDirection="down" label="What happened">
      {children}
      <Primitive.Viewport className="fixed bottom-18 left-1/2 z-65 grid w-[min(30rem,calc(100vw-2rem))] -translate-x-1/2 gap-2 md:bottom-5" />
    </Primitive.Provider>
  )
}

interface ToastProps {
  says: string
  undo: () => void
  done: () => void
}

/** Something is gone from the screen: what it was, and the way back. */
export function Toast({ says, undo, done }: ToastProps) {
  return (
    <Primitive.Root
      onOpenChange={(open) => !open && done()}
      className="layer flex items-center justify-between gap-4 bg-ink px-4 py-2.5 text-white"
    >
      <Primitive.Title>{says}</Primitive.Title>
      <Primitive.Action asChild altText={`Undo: press z`}>
        <button type="button" className="font-semibold whitespace-nowrap underline underline-offset-3" onClick={undo}>
          Undo <Kbd>z</Kbd>
        </button>
      </Primitive.Action>
    </Primitive.Root>
  )
}
