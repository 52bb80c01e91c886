import { X } from 'lucide-react'
import { DropdownMenu } from '../ui/DropdownMenu'
import type { Sweep } from './use-sweep'

/** Down to where the same was seen, and where it stopped on the way: those are marked after the rest, each by itself. */
export function HowFar({ sweep, who }: { sweep: Sweep; who: string }) {
  const { further, downTo, setDownTo, through, stops, setStops } = sweep
  if (further.length === 0) return null
  const went = through.filter(({ at }) => !stops.includes(at))
  return (
    <>
      <DropdownMenu
        className="quiet-link inline-flex! items-center gap-1"
        name={downTo ? `down to ${downTo.name}` : 'only this'}
        label={`How far ${who} did the same`}
        items={further.map(({ item, at }) => ({ name: `down to ${item.name}`, act: () => setDownTo(at) }))}
      />
      {went.length > 1 && (
        <DropdownMenu
          className="quiet-link inline-flex! items-center gap-1"
          name={stops.length > 0 ? 'another stop' : 'without a stop'}
          label={`Where ${who} stopped`}
          items={went.map(({ item, at }) => ({ name: item.name, act: () => setStops([...stops, at]) }))}
        />
      )}
      {through
        .filter(({ at }) => stops.includes(at))
        .map(({ item, at }) => (
          <button
            key={at}
            type="button"
            className="inline-flex items-center gap-1 text-lacquer"
            aria-label={`Did not stop at ${item.name}`}
            onClick={() => setStops(stops.filter((stop) => stop !== at))}
          >
            stop at {item.name} <X size={14} aria-hidden />
          </button>
        ))}
    </>
  )
}
