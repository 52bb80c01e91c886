import { Popover as Primitive } from 'radix-ui'
import type { ReactNode } from 'react'

export interface PopoverProps {
  label: string
  open: boolean
  onOpenChange: (open: boolean) => void
  /** The button it hangs from. */
  trigger: ReactNode
  className?: string
  children: ReactNode
}

/** Something short beside the button that asks for it. */
export function Popover({ label, open, onOpenChange, trigger, className = 'w-96', children }: PopoverProps) {
  return (
    <Primitive.Root open={open} onOpenChange={onOpenChange}>
      <Primitive.Trigger asChild>{trigger}</Primitive.Trigger>
      <Primitive.Portal>
        <Primitive.Content
          aria-label={label}
          align="end"
          sideOffset={8}
          collisionPadding={12}
          // Whoever has gone on meanwhile is not called back to the button.
          onCloseAutoFocus={(event) => {
            if (document.activeElement !== document.body) event.preventDefault()
          }}
          className={`layer z-50 max-h-(--radix-popover-content-available-height) max-w-(--radix-popover-content-available-width) overflow-y-auto p-3 ${className}`}
        >
          {children}
        </Primitive.Content>
      </Primitive.Portal>
    </Primitive.Root>
  )
}
