import { Toolbar as Primitive } from 'radix-ui'
import type { ComponentProps, ReactNode } from 'react'

/** Buttons that belong together: one stop for the tab key, arrows within. */
export function Toolbar({
  label,
  className = '',
  children,
}: {
  label: string
  className?: string
  children: ReactNode
}) {
  return (
    <Primitive.Root aria-label={label} className={`flex flex-wrap items-center gap-1.5 ${className}`}>
      {children}
    </Primitive.Root>
  )
}

export const ToolbarButton = ({ className = 'button', ...rest }: ComponentProps<'button'>) => (
  <Primitive.Button type="button" className={className} {...rest} />
)
