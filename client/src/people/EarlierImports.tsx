import { useMutation, useQuery } from '@tanstack/react-query'
import { Refusal } from '../ui/states'
import { moment } from '../ui/words'
import { importsQuery, takeImportBack } from './data'

/** The last imports, each of which can be taken back as a whole. */
export function EarlierImports() {
  const imports = useQuery(importsQuery())
  const takeBack = useMutation(takeImportBack)
  if (!imports.data?.length) return null
  return (
    <section>
      <h2 className="text-lg">Earlier imports</h2>
      {takeBack.isError && <Refusal error={takeBack.error} />}
      <ul className="mt-1 grid gap-1">
        {imports.data.map((one) => (
          <li key={one.id} className="flex flex-wrap gap-4">
            <span>
              {moment(one.at)} · <b>{one.fileName}</b> · {one.added} added, {one.changed} changed · {one.by}
            </span>
            {one.takenBack ? (
              <span className="text-soft">taken back</span>
            ) : (
              <button
                type="button"
                className="quiet-link"
                disabled={takeBack.isPending}
                aria-label={`Take ${one.fileName} back`}
                onClick={() => takeBack.mutate({ id: one.id })}
              >
                Take it back
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}
