import type { Schema } from '../api/client'

/** How long what was new really took: from it the plan learns the cohort's pace. Nothing has to be said. */
export function TookMinutes({
  items,
  say,
}: {
  items: Schema['RegisterItem'][]
  say: (item: Schema['RegisterItem'], minutes: number | null) => void
}) {
  const fresh = items.filter((item) => item.taught && item.planned !== null)
  if (fresh.length === 0) return null
  return (
    <section className="px-5 pt-4">
      <h2 className="text-base">How long it took</h2>
      <p className="text-soft">From this the plan learns how fast they are.</p>
      <ul className="mt-1 grid gap-1.5">
        {fresh.map((item) => (
          <li key={item.kind + item.name}>
            <label className="flex flex-wrap items-center gap-2">
              <input
                type="number"
                min={0.5}
                max={120}
                step={0.5}
                className="field w-20"
                defaultValue={item.took ?? ''}
                placeholder={String(item.planned)}
                onBlur={(event) => {
                  const minutes = event.target.value === '' ? null : Number(event.target.value)
                  if (minutes !== item.took) say(item, minutes)
                }}
              />
              min for {item.name} <span className="text-soft">planned: {item.planned} min</span>
            </label>
          </li>
        ))}
      </ul>
    </section>
  )
}
