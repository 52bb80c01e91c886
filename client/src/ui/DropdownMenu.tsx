import { ChevronDown, ChevronRight } from 'lucide-react'
import { DropdownMenu as Primitive } from 'radix-ui'
import type { ReactNode } from 'react'
import type { MenuItem } from './menu'

interface DropdownMenuProps {
  /** What the button says. */
  name: ReactNode
  label?: string
  items: readonly MenuItem[]
  disabled?: boolean
  className?: string
}

/** A button with several things it can do; nothing is done before one is chosen. */
export function DropdownMenu({ name, label, items, disabled, className = 'button' }: DropdownMenuProps) {
  return (
    <Primitive.Root modal={false}>
      <Primitive.Trigger className={className} aria-label={label} disabled={disabled}>
        {name}
        <ChevronDown size={16} aria-hidden className="shrink-0 text-soft" />
      </Primitive.Trigger>
      <Primitive.Portal>
        <Primitive.Content
          align="start"
          sideOffset={4}
          collisionPadding={8}
          className="layer z-60 max-h-(--radix-dropdown-menu-content-available-height) overflow-y-auto p-1"
        >
          <Items items={items} />
        </Primitive.Content>
      </Primitive.Portal>
    </Primitive.Root>
  )
}

function Items({ items }: { items: readonly MenuItem[] }) {
  return items.map((item, at) =>
    item.items ? (
      <Primitive.Sub key={at}>
        <Primitive.SubTrigger className="layer-item" disabled={item.disabled}>
          {item.name}
          <ChevronRight size={16} aria-hidden className="ml-auto text-soft" />
        </Primitive.SubTrigger>
        <Primitive.Portal>
          <Primitive.SubContent
            collisionPadding={8}
            className="layer z-60 max-h-(--radix-dropdown-menu-content-available-height) overflow-y-auto p-1"
          >
            <Items items={item.items} />
          </Primitive.SubContent>
        </Primitive.Portal>
      </Primitive.Sub>
    ) : (
      <Primitive.Item key={at} className="layer-item" disabled={item.disabled} onSelect={item.act}>
        {item.name}
      </Primitive.Item>
    ),
  )
}
