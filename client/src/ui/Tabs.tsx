import { Tabs as Primitive } from 'radix-ui'
import { createContext, use, useEffect, useRef, type ReactNode } from 'react'

interface TabsProps<T extends string> {
  value: T
  onChange: (value: T) => void
  children: ReactNode
}

/** The part that is open, for the list of its parts. */
const OpenPart = createContext('')

/** Parts of one thing, one at a time. Its list and its panels stand wherever the screen wants them. */
export function Tabs<T extends string>({ value, onChange, children }: TabsProps<T>) {
  return (
    <Primitive.Root value={value} onValueChange={onChange} className="contents">
      <OpenPart value={value}>{children}</OpenPart>
    </Primitive.Root>
  )
}

export function TabList<T extends string>({
  label,
  options,
}: {
  label: string
  options: readonly { value: T; name: ReactNode }[]
}) {
  const list = useRef<HTMLDivElement>(null)
  const part = use(OpenPart)
  // On a phone the list is longer than the screen: whichever is open is in sight.
  useEffect(() => {
    const open = list.current?.querySelector<HTMLElement>('[data-state=active]')
    if (list.current && open)
      list.current.scrollLeft = open.offsetLeft - (list.current.clientWidth - open.offsetWidth) / 2
  }, [part])
  return (
    <Primitive.List
      ref={list}
      aria-label={label}
      className="relative inline-flex max-w-full flex-wrap justify-self-start rounded-md border border-edge bg-white max-md:flex-nowrap max-md:overflow-x-auto"
    >
      {options.map((option) => (
        <Primitive.Trigger
          key={option.value}
          value={option.value}
          className="min-h-9 shrink-0 rounded-[5px] px-3.5 py-1.5 font-semibold text-soft hover:text-ink data-[state=active]:bg-pine-tint data-[state=active]:text-pine"
        >
          {option.name}
        </Primitive.Trigger>
      ))}
    </Primitive.List>
  )
}

export function TabPanel({ value, className, children }: { value: string; className?: string; children: ReactNode }) {
  return (
    <Primitive.Content value={value} tabIndex={-1} className={className}>
      {children}
    </Primitive.Content>
  )
}
