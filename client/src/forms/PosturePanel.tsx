import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { answer, api, type Schema } from '../api/client'
import { Problem } from '../api/problem'
import { useSignedIn } from '../app/session'
import { Field } from '../ui/Field'
import { Failure, Refusal, Tabs, Waiting } from '../ui/states'
import { demandWords, weightWords } from '../ui/words'

interface PosturePanelProps {
  postureId: string
  side: Schema['Side']
  onRenamed: () => void
  children?: ReactNode
}

/** A posture as it reads on one side: key point, counts, faults and cautions. */
export function PosturePanel({ postureId, side, onRenamed, children }: PosturePanelProps) {
  const { isHead } = useSignedIn()
  const [mode, setMode] = useState('standing')
  const posture = useQuery({ queryKey: ['posture', postureId, side], queryFn: () => answer(api.GET('/api/postures/{id}', { params: { path: { id: postureId }, query: { side } } })) })
  if (posture.isError) return <Failure error={posture.error} retry={() => void posture.refetch()} />
  if (posture.isPending) return <Waiting what="Opening the posture" />
  const data = posture.data
  const version = data.versions.find((candidate) => candidate.mode === mode)
  const counts = version?.counts ?? data.counts
  const cautions = version?.cautions ?? data.cautions
  return (
    <aside aria-label="Details" className="border-l border-line bg-plaster px-5 py-4 lg:h-[calc(100vh-150px)] lg:overflow-y-auto">
      <Name posture={data} editable={isHead} onRenamed={onRenamed} />
      <p className="mt-2 border-l-4 border-lacquer pl-3">
        <b>Key point</b> {data.keyPoint}
      </p>
      <div className="mt-4 grid gap-4">
        {data.versions.length > 0 && (
          <Tabs label="Mode" value={version ? mode : 'standing'} options={[{ value: 'standing', name: 'Standing' }, ...data.versions.map((one) => ({ value: one.mode, name: one.mode[0]!.toUpperCase() + one.mode.slice(1) }))]} onChange={setMode} />
        )}
        {version && <p className="text-soft">Instead of the steps: {version.replaces}.</p>}
        <ol className="grid gap-1.5">
          {counts.map((count, at) => (
            <li key={at} className="grid grid-cols-[22px_1fr] gap-2">
              <span className="font-serif text-base font-bold">{at + 1}</span>
              <span>
                <span className="text-[15px] font-semibold">{count.cue}</span>
                <Layers count={count} />
              </span>
            </li>
          ))}
        </ol>
        {children}
        <section>
          <h3 className="mb-1 text-base">Usual faults</h3>
          <ul className="grid gap-2">
            {data.faults.map((fault) => (
              <li key={fault.id}>
                <b>{fault.seen}</b> <span className="text-soft">({weightWords[fault.weight]})</span>
                <br />
                <span className="text-soft">Perhaps:</span> {fault.cause}. <span className="text-soft">Mend:</span> {fault.mend}.
              </li>
            ))}
          </ul>
        </section>
        <section className="border-l-4 border-ochre-mark pl-3">
          <h3 className="mb-1 text-base">Cautions</h3>
          {cautions.map((caution) => (
            <p key={caution}>{caution}</p>
          ))}
          {data.demands.length > 0 && <p className="text-soft">Asks for {data.demands.map((demand) => demandWords[demand]).join(', ')}.</p>}
        </section>
      </div>
    </aside>
  )
}

function Layers({ count }: { count: Schema['Count'] }) {
  const layers = [['feet', count.feet], ['waist', count.waist], ['hands', count.hands], ['gaze', count.gaze], ['breath', count.breath]].filter(([, text]) => text)
  if (layers.length === 0) return null
  return (
    <span className="block text-soft">
      {layers.map(([layer, text]) => (
        <span key={layer} className="mr-2.5 inline-block">
          <span className="italic">{layer}</span> <span className="text-ink">{text}</span>
        </span>
      ))}
    </span>
  )
}

function Name({ posture, editable, onRenamed }: { posture: Schema['PostureResponse']; editable: boolean; onRenamed: () => void }) {
  const queries = useQueryClient()
  const [name, setName] = useState<string>()
  const [before, setBefore] = useState<string>()
  const rename = useMutation({
    mutationFn: (wanted: string) => answer(api.PUT('/api/postures/{id}/name', { params: { path: { id: posture.id } }, body: { name: wanted, version: posture.version } })),
    onSuccess: async () => {
      setBefore(posture.name)
      setName(undefined)
      onRenamed()
      await queries.invalidateQueries({ queryKey: ['posture'] })
      await queries.invalidateQueries({ queryKey: ['postures'] })
    },
  })
  const sided = posture.side === 'symmetric' ? '' : `, ${posture.side}`
  if (name === undefined) {
    return (
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h2 className="text-[22px]">
          {posture.name}
          <span className="font-normal">{sided}</span>
        </h2>
        {editable && (
          <button type="button" className="quiet-link" onClick={() => setName(posture.name)}>
            Rename
          </button>
        )}
        {before && before !== posture.name && (
          <button type="button" className="quiet-link" onClick={() => rename.mutate(before)}>
            Undo, call it {before}
          </button>
        )}
      </div>
    )
  }
  const problem = rename.error instanceof Problem ? rename.error : undefined
  return (
    <form
      className="grid gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        rename.mutate(name)
      }}
    >
      <Field label="Name of the posture" value={name} onChange={setName} error={problem?.at('name')} />
      {rename.isError && !problem?.at('name') && <Refusal error={rename.error} reload={() => void queries.invalidateQueries({ queryKey: ['posture'] }).then(() => setName(undefined))} />}
      <div className="flex gap-2">
        <button type="submit" className="button" disabled={rename.isPending}>
          Save the name
        </button>
        <button
          type="button"
          className="button"
          onClick={() => {
            rename.reset()
            setName(undefined)
          }}
        >
          Leave it
        </button>
      </div>
    </form>
  )
}
