import { ChevronRight } from 'lucide-react'
import { ContextMenu as Primitive } from 'radix-ui'
import type { ReactNode } from 'react'
import type { MenuItem } from './menu'

interface ContextMenuProps {
  /** Asked for when it opens: what can be done to what was pressed. Nothing when there is nothing. */
  items: readonly MenuItem[]
  /** Hears what was pressed before the items are asked for. */
  onOpen?: (pressed: HTMLElement) => void
  children: ReactNode
}

/** On a board: what the other mouse button, a long press or the menu key offers. Everything in it has another way too. */
export function ContextMenu({ items, onOpen, children }: ContextMenuProps) {
  return (
    <Primitive.Root modal={false}>
      <Primitive.Trigger asChild onContextMenu={(event) => onOpen?.(event.target as HTMLElement)}>
        {children}
      </Primitive.Trigger>
      {items.length > 0 && (
        <Primitive.Portal>
          <Primitive.Content
            collisionPadding={8}
            className="layer z-60 max-h-(--radix-context-menu-content-available-height) overflow-y-auto p-1"
          >
            <Items items={items} />
          </Primitive.Content>
        </Primitive.Portal>
      )}
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
            className="layer z-60 max-h-(--radix-context-menu-content-available-height) overflow-y-auto p-1"
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
