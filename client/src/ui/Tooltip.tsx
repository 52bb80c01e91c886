import { Tooltip as Primitive } from 'radix-ui'
import type { ReactNode } from 'react'

/** A few words about what is pointed at or has the focus. The child must be able to have it. */
export function Tooltip({ says, children }: { says: ReactNode; children: ReactNode }) {
  return (
    <Primitive.Provider delayDuration={400}>
      <Primitive.Root>
        <Primitive.Trigger asChild>{children}</Primitive.Trigger>
        <Primitive.Portal>
          <Primitive.Content
            sideOffset={6}
            collisionPadding={8}
            className="z-70 max-w-80 rounded bg-ink px-2.5 py-1.5 text-small text-white shadow-md"
          >
            {says}
            <Primitive.Arrow className="fill-ink" />
          </Primitive.Content>
        </Primitive.Portal>
      </Primitive.Root>
    </Primitive.Provider>
  )
}
