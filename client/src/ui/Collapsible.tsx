import { ChevronRight } from 'lucide-react'
import { Collapsible as Primitive } from 'radix-ui'
import { useState, type ReactNode } from 'react'

interface CollapsibleProps {
  name: ReactNode
  /** What is in it is made when it is opened. */
  children: ReactNode
  className?: string
}

/** Something that is there when it is wanted. */
export function Collapsible({ name, children, className }: CollapsibleProps) {
  const [open, setOpen] = useState(false)
  return (
    <Primitive.Root open={open} onOpenChange={setOpen} className={className}>
      <Primitive.Trigger className="group flex items-center gap-1.5 text-left font-semibold">
        <ChevronRight
          size={16}
          aria-hidden
          className="shrink-0 text-soft transition-transform group-data-[state=open]:rotate-90"
        />
        {name}
      </Primitive.Trigger>
      <Primitive.Content>{children}</Primitive.Content>
    </Primitive.Root>
  )
}
