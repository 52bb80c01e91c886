import { Toast as Primitive } from 'radix-ui'
import { Kbd } from './Kbd'

export interface Told {
  id: string
  says: string
  undo: () => void
}

/** At the foot of the page: what is gone from the screen, and the way back. */
export function Toasts({ told, done }: { told: readonly Told[]; done: (id: string) => void }) {
  return (
    <Primitive.Provider duration={12_000} swipeDirection="down" label="What happened">
      {told.map(({ id, says, undo }) => (
        <Primitive.Root
          key={id}
          onOpenChange={(open) => !open && done(id)}
          className="layer flex items-center justify-between gap-4 bg-ink px-4 py-2.5 text-white"
        >
          <Primitive.Title>{says}</Primitive.Title>
          <Primitive.Action asChild altText="Undo: press z">
            <button
              type="button"
              className="font-semibold whitespace-nowrap underline underline-offset-3"
              onClick={undo}
            >
              Undo <Kbd>z</Kbd>
            </button>
          </Primitive.Action>
        </Primitive.Root>
      ))}
      <Primitive.Viewport className="screen-only fixed bottom-18 left-1/2 z-65 grid w-[min(30rem,calc(100vw-2rem))] -translate-x-1/2 gap-2 md:bottom-5" />
    </Primitive.Provider>
  )
}
