import { Progress as Primitive } from 'radix-ui'

/** How far long work is, in its own units. */
export function Progress({ label, done, of }: { label: string; done: number; of: number }) {
  return (
    <Primitive.Root
      aria-label={label}
      value={done}
      max={Math.max(1, of)}
      className="h-2.5 w-48 overflow-hidden rounded-full bg-fine"
    >
      <Primitive.Indicator
        className="h-full rounded-full bg-pine"
        style={{ width: `${(done / Math.max(1, of)) * 100}%` }}
      />
    </Primitive.Root>
  )
}
