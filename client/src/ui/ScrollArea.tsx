import { ScrollArea as Primitive } from 'radix-ui'
import type { ReactNode, Ref } from 'react'
import { styleNonce } from './nonce'

interface ScrollAreaProps {
  className?: string
  /** The element that scrolls. */
  viewport?: Ref<HTMLDivElement>
  children: ReactNode
}

/** Scrolls with a bar of our own that shows while it is of use. */
export function ScrollArea({ className = '', viewport, children }: ScrollAreaProps) {
  return (
    <Primitive.Root type="auto" className={`relative overflow-hidden ${className}`}>
      <Primitive.Viewport ref={viewport} nonce={styleNonce()} className="size-full max-h-[inherit]">
        {children}
      </Primitive.Viewport>
      {(['vertical', 'horizontal'] as const).map((orientation) => (
        <Primitive.Scrollbar
          key={orientation}
          orientation={orientation}
          className="z-30 flex touch-none bg-plaster/60 p-0.5 select-none data-[orientation=horizontal]:h-2.5 data-[orientation=horizontal]:flex-col data-[orientation=vertical]:w-2.5"
        >
          <Primitive.Thumb className="flex-1 rounded-full bg-edge" />
        </Primitive.Scrollbar>
      ))}
      <Primitive.Corner />
    </Primitive.Root>
  )
}
