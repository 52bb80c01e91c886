import { SavedNumber } from '../ui/SavedField'
import type { RegisterItem } from './data'

/** How long what was new really took: from it the plan learns the cohort's pace. Nothing has to be said. */
export function TookMinutes({
  items,
  say,
}: {
  items: RegisterItem[]
  say: (item: RegisterItem, minutes: number | null) => void
}) {
  const fresh = items.filter((item) => item.taught && item.planned !== null)
  if (fresh.length === 0) return null
  return (
    <section className="px-5 pt-4">
      <h2 className="text-base">How long it took</h2>
      <p className="text-soft">From this the plan learns how fast they are.</p>
      <ul className="mt-2 flex flex-wrap gap-x-6 gap-y-2">
        {fresh.map((item) => (
          <li key={item.kind + item.name} className="w-56">
            <SavedNumber
              label={`Minutes for ${item.name}`}
              value={item.took}
              placeholder={`planned: ${item.planned}`}
              save={(minutes) => say(item, minutes)}
            />
          </li>
        ))}
      </ul>
    </section>
  )
}
