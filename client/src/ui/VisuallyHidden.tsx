import { VisuallyHidden as Primitive } from 'radix-ui'
import type { ReactNode } from 'react'

/** Said to whoever listens, not drawn. */
export const VisuallyHidden = ({ children }: { children: ReactNode }) => <Primitive.Root>{children}</Primitive.Root>
