import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { useParams, useSearchParams } from 'react-router'
import { answer, api, type Schema } from '../api/client'
import { useSignedIn } from '../app/session'
import { Dial } from '../ui/Dial'
import { Kbd } from '../ui/Kbd'
import { moveInGrid, useKeys } from '../ui/keys'
import { Empty, Failure, Heading, Refusal, Waiting } from '../ui/states'
import { clock, minutesOf } from '../ui/words'
import { PositionEditor } from './PositionEditor'
import { PosturePanel } from './PosturePanel'

type Position = Schema['FormPositionResponse']
type Form = Schema['FormResponse']

/** A form as a list of positions; the posture of the chosen one beside it. Every change is saved at once and can be undone. */
export function FormsScreen() {
  const { formId } = useParams()
  const { isHead } = useSignedIn()
  const queries = useQueryClient()
  const [search, setSearch] = useSearchParams()
  const [undo, setUndo] = useState<{ what: string; form: Form }[]>([])
  const list = useRef<HTMLDivElement>(null)
  const forms = useQuery({ queryKey: ['forms'], queryFn: () => answer(api.GET('/api/forms')) })
  const id = formId ?? forms.data?.[0]?.id
  const form = useQuery({ queryKey: ['form', id], enabled: id !== undefined, queryFn: () => answer(api.GET('/api/forms/{id}', { params: { path: { id: id! } } })) })

  const save = useMutation({
    mutationFn: ({ wanted, version }: { wanted: Pick<Form, 'name' | 'sections' | 'positions'>; version: number }) =>
      answer(api.PUT('/api/forms/{id}', { params: { path: { id: id! } }, body: { name: wanted.name, sections: wanted.sections, positions: wanted.positions, version } })),
    onSuccess: (saved) => queries.setQueryData(['form', id], saved),
  })

  const data = form.data
  const chosen = data?.positions.find((position) => position.id === search.get('position')) ?? data?.positions.find((position) => position.postureId === search.get('posture') && (!search.get('side') || position.side === search.get('side'))) ?? data?.positions[0]
  const choose = (position: Position) => setSearch({ position: position.id }, { replace: true })

  const change = (what: string, positions: Position[]) => {
    if (!data || save.isPending) return
    save.mutate({ wanted: { ...data, positions }, version: data.version }, { onSuccess: () => setUndo((steps) => [...steps, { what, form: data }]) })
  }
  const takeBack = () => {
    const last = undo.at(-1)
    if (!data || !last || save.isPending) return
    save.mutate({ wanted: last.form, version: data.version }, { onSuccess: () => setUndo((steps) => steps.slice(0, -1)) })
  }
  const edit = (position: Position, part: Partial<Position>, what: string) =>
    data && change(what, data.positions.map((one) => (one.id === position.id ? { ...one, ...part } : one)))
  const move = (position: Position, by: -1 | 1) => {
    if (!data) return
    const at = data.positions.indexOf(position)
    const neighbour = data.positions[at + by]
    if (!neighbour || neighbour.sectionId !== position.sectionId) return
    const positions = data.positions.with(at, neighbour).with(at + by, position)
    change(`moving ${position.posture}`, positions)
  }
  const mirror = (position: Position) => position.hasSides && edit(position, { side: position.side === 'left' ? 'right' : 'left' }, `mirroring ${position.posture}`)

  useKeys((event) => {
    if (!isHead) return false
    if (event.key === 'z' && undo.length > 0) takeBack()
    else if (event.key === 'm' && chosen) mirror(chosen)
    else return false
    return true
  })

  if (forms.isError || form.isError) return <Failure error={(forms.error ?? form.error)!} retry={() => void queries.invalidateQueries()} />
  if (forms.isPending || (id && form.isPending)) return <Waiting what="Opening the form" />
  if (!data || !chosen) return <Empty>No form has been written down yet.</Empty>

  const { analysis } = data
  return (
    <>
      <Heading
        title={data.name}
        facts={`${analysis.positions} positions · ${analysis.postures} different postures · ${analysis.links} links · ${minutesOf(Math.round(analysis.runThroughSeconds / 6) * 6)} at 4 s a count · ${analysis.homeTurn === 0 ? 'ends facing its beginning' : `ends ${Math.abs(analysis.homeTurn)}° from its beginning`}`}
      >
        {data.findings.length > 0 && <span className="font-bold text-ochre">{data.findings.length === 1 ? '1 facing does not add up' : `${data.findings.length} facings do not add up`}</span>}
        {isHead && (
          <button type="button" className="button" disabled={undo.length === 0 || save.isPending} onClick={takeBack}>
            {undo.length > 0 ? `Undo ${undo.at(-1)!.what}` : 'Undo'} <Kbd>z</Kbd>
          </button>
        )}
      </Heading>
      {save.isError && (
        <div className="px-5 pb-3">
          <Refusal
            error={save.error}
            reload={() => {
              setUndo([])
              save.reset()
              void form.refetch()
            }}
          />
        </div>
      )}
      <div className="grid flex-1 border-t border-line lg:grid-cols-[minmax(0,1fr)_minmax(0,470px)]">
        <div ref={list} className="bg-paper lg:h-[calc(100vh-150px)] lg:overflow-y-auto" onKeyDown={(event) => list.current && moveInGrid(list.current, event)}>
          {data.sections.map((section) => (
            <section key={section.id} aria-label={section.name}>
              <h2 className="sticky top-0 z-10 border-b border-line bg-plaster px-5 py-1.5 text-base">{section.name}</h2>
              <ol>
                {data.positions.map((position, at) =>
                  position.sectionId !== section.id ? null : (
                    <li key={position.id} className={`border-b border-fine ${position === chosen ? 'border-l-4 border-l-pine bg-pine-tint' : 'border-l-4 border-l-transparent'}`}>
                      <button
                        type="button"
                        data-grid={`${at},0`}
                        aria-pressed={position === chosen}
                        className="grid w-full grid-cols-[36px_1fr_auto_34px] items-center gap-3 px-4 py-1.5 text-left"
                        onClick={() => choose(position)}
                      >
                        <span className="text-right font-serif font-bold">{position.number ?? <span className="font-normal text-soft">–</span>}</span>
                        <span className={`font-serif text-[17px] font-semibold ${position.numbered ? '' : 'pl-4'}`}>
                          {position.posture}
                          {position.side !== 'symmetric' && <span className="font-normal">, {position.side}</span>}
                          {position.repeats > 1 && <span className="font-sans text-sm font-normal text-soft"> × {position.repeats}</span>}
                        </span>
                        <span className="text-right text-soft">
                          {position.turn !== 0 && <>turn {Math.abs(position.turn)}° {position.turn > 0 ? 'right' : 'left'} · </>}
                          {clock(position.facing)}
                        </span>
                        <Dial facing={position.facing} size={28} />
                      </button>
                      {data.findings
                        .filter((finding) => finding.positionId === position.id)
                        .map((finding) => (
                          <div key={finding.positionId} className="mx-5 mb-2 border-l-4 border-ochre-mark pl-3">
                            {finding.message}{' '}
                            {isHead && (
                              <>
                                <button type="button" className="quiet-link" onClick={() => edit(position, { turn: finding.turnThatFits }, 'setting the turn')}>
                                  Turn {finding.turnThatFits}° instead
                                </button>{' '}
                                or{' '}
                                <button type="button" className="quiet-link" onClick={() => edit(position, { facing: finding.reached }, 'setting the facing')}>
                                  write {clock(finding.reached)}
                                </button>
                                .
                              </>
                            )}
                          </div>
                        ))}
                    </li>
                  ),
                )}
              </ol>
            </section>
          ))}
        </div>
        <PosturePanel key={chosen.postureId + chosen.side} postureId={chosen.postureId} side={chosen.side} onRenamed={() => void form.refetch()}>
          {isHead && <PositionEditor position={chosen} disabled={save.isPending} edit={(part, what) => edit(chosen, part, what)} move={(by) => move(chosen, by)} mirror={() => mirror(chosen)} />}
        </PosturePanel>
      </div>
    </>
  )
}
