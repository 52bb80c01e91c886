import { HoverCard as Primitive } from 'radix-ui'
import type { ReactNode } from 'react'

/**
 * A look at something without going there, for whoever points; everything in it is said elsewhere too.
 * @param off What it would show is on the screen already.
 */
export function HoverCard({ card, off = false, children }: { card: ReactNode; off?: boolean; children: ReactNode }) {
  return (
    <Primitive.Root open={off ? false : undefined} openDelay={500} closeDelay={100}>
      <Primitive.Trigger asChild>{children}</Primitive.Trigger>
      <Primitive.Portal>
        <Primitive.Content
          side="right"
          align="start"
          sideOffset={8}
          collisionPadding={12}
          className="layer z-50 grid w-72 gap-1.5 p-3"
        >
          {card}
        </Primitive.Content>
      </Primitive.Portal>
    </Primitive.Root>
  )
}
