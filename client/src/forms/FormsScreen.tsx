import { useRef, useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import { answer, api } from '../api/client'
import { useSignedIn } from '../app/session'
import { useSearch } from '../app/use-search'
import { Kbd } from '../ui/Kbd'
import { moveInGrid, useKeys } from '../ui/keys'
import { newId } from '../ui/new-id'
import { Empty, Failure, Heading, Refusal, Tabs, Waiting } from '../ui/states'
import { minutesOf } from '../ui/words'
import { AnalysisView } from './AnalysisView'
import { CompareView } from './CompareView'
import { CueView } from './CueView'
import { DraftStore } from './draft'
import { FloorMap } from './FloorMap'
import { FormSettings } from './FormSettings'
import { FormsNav } from './FormsNav'
import { HallView } from './HallView'
import { PositionList } from './PositionList'
import { PositionPanel } from './PositionPanel'
import {
  useForm,
  useForms,
  usePostures,
  useRefreshMaterial,
  useSaveForm,
  type FormText,
  type Position,
} from './queries'
import { StartPanel } from './StartPanel'

const views = [
  { value: 'floor', name: 'Floor' },
  { value: 'cues', name: 'Say and do' },
  { value: 'hall', name: 'Hall' },
  { value: 'analysis', name: 'Analysis' },
  { value: 'compare', name: 'Compare' },
] as const

/** A form: its positions with what disagrees, and beside them the floor, the cues, the hall, the numbers or another form. Every change is saved at once and can be undone. */
export function FormsScreen() {
  const { formId } = useParams()
  const { isHead } = useSignedIn()
  const navigate = useNavigate()
  const refresh = useRefreshMaterial()
  const [search, set] = useSearch()
  const [undo, setUndo] = useState<{ what: string; text: FormText }[]>([])
  const [drafts] = useState(() => new DraftStore())
  const list = useRef<HTMLDivElement>(null)
  const forms = useForms()
  const postures = usePostures()
  const id = formId ?? forms.data?.[0]?.id
  const form = useForm(id)
  const save = useSaveForm(id)

  const data = form.data
  const text = data?.text
  const chosen =
    text?.positions.find((position) => position.id === search.get('position')) ??
    text?.positions.find(
      (position) =>
        position.postureId === search.get('posture') && (!search.get('side') || position.side === search.get('side')),
    ) ??
    text?.positions[0]
  const view = views.find((one) => one.value === search.get('view'))?.value ?? 'floor'
  const open = search.get('open') === '1'

  const choose = (position: Position) => set({ position: position.id, posture: null, side: null })

  const change = (what: string, wanted: FormText, then?: () => void) => {
    if (!data || save.isPending) return
    save.mutate(
      { text: wanted, version: data.version },
      {
        onSuccess: () => {
          setUndo((steps) => [...steps, { what, text: data.text }])
          then?.()
        },
      },
    )
  }
  const takeBack = () => {
    const last = undo.at(-1)
    if (!data || !last || save.isPending) return
    save.mutate({ text: last.text, version: data.version }, { onSuccess: () => setUndo((steps) => steps.slice(0, -1)) })
  }
  const edit = (position: Position, part: Partial<Position>, what: string) =>
    text &&
    change(what, {
      ...text,
      positions: text.positions.map((one) => (one.id === position.id ? { ...one, ...part } : one)),
    })
  const nameOf = (position: Position) =>
    data?.study.positions.find((one) => one.id === position.id)?.name ?? 'the position'
  const mirror = (position: Position) =>
    position.side !== 'symmetric' &&
    edit(position, { side: position.side === 'left' ? 'right' : 'left' }, `mirroring ${nameOf(position)}`)

  useKeys((event) => {
    if (event.key === 'Escape' && open) set({ open: null })
    else if (event.key === 'z' && isHead && undo.length > 0) takeBack()
    else if (event.key === 'm' && isHead && chosen) mirror(chosen)
    else return false
    return true
  })

  if (forms.isError || form.isError)
    return <Failure error={(forms.error ?? form.error)!} retry={() => void refresh()} />
  if (forms.isPending || (id && form.isPending)) return <Waiting what="Opening the form" />
  if (!data || !text) {
    return (
      <>
        <FormsNav here="/forms" />
        {isHead ? <StartPanel /> : <Empty>No form has been written down yet.</Empty>}
      </>
    )
  }

  const addForm = async () => {
    const made = newId()
    const names = forms.data.map((one) => one.name)
    const name = ['New form', ...Array.from({ length: 50 }, (_, at) => `New form ${at + 2}`)].find(
      (one) => !names.includes(one),
    )!
    await answer(
      api.POST('/api/forms', {
        body: {
          id: made,
          text: {
            name,
            sections: [{ id: newId(), name: 'Section one' }],
            positions: [],
            parentId: null,
            segments: [],
            accepted: [],
          },
        },
      }),
    )
    await refresh()
    setUndo([])
    void navigate(`/forms/${made}`)
  }

  const { analysis, findings, floor } = data.study
  const open_ = findings.filter((finding) => finding.acceptedBecause === null && finding.severity !== 'note')
  return (
    <>
      <FormsNav here="/forms" />
      <Heading
        title={
          <span className="inline-flex items-center gap-2">
            {text.name}
            <label className="sr-only" htmlFor="form">
              Form
            </label>
            <select
              id="form"
              className="field w-36 font-sans text-[14px] font-normal"
              value=""
              onChange={(event) => {
                setUndo([])
                if (event.target.value === 'new') void addForm()
                else void navigate(`/forms/${event.target.value}`)
              }}
            >
              <option value="" disabled>
                another form
              </option>
              {forms.data
                .filter((one) => one.id !== id)
                .map((one) => (
                  <option key={one.id} value={one.id}>
                    {one.name}, {one.positions} positions
                  </option>
                ))}
              {isHead && <option value="new">write a new one…</option>}
            </select>
          </span>
        }
        facts={
          text.positions.length === 0
            ? 'no positions yet'
            : `${analysis.positions} positions · ${analysis.postures} different postures · ${analysis.links} links · ${minutesOf(Math.round(analysis.runThroughSeconds / 6) * 6)} at 4 s a count · closes ${floor.need.fromHome.toFixed(1)} m from where it began`
        }
      >
        {open_.length > 0 && (
          <span className="font-bold text-ochre">
            {open_.length === 1 ? '1 thing disagrees' : `${open_.length} things disagree`}
          </span>
        )}
        {isHead && (
          <button type="button" className="button" disabled={undo.length === 0 || save.isPending} onClick={takeBack}>
            {undo.length > 0 ? `Undo ${undo.at(-1)!.what}` : 'Undo'} <Kbd>z</Kbd>
          </button>
        )}
        <Tabs
          label="View"
          value={view}
          options={[...views]}
          onChange={(value) => set({ view: value === 'floor' ? null : value })}
        />
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
      <div
        className={`grid min-h-0 flex-1 border-t border-line lg:h-[calc(100vh-190px)] ${open ? 'lg:grid-cols-[minmax(300px,380px)_minmax(0,1fr)_minmax(340px,400px)]' : 'lg:grid-cols-[minmax(320px,436px)_minmax(0,1fr)]'}`}
      >
        <div
          ref={list}
          className="bg-paper lg:h-[calc(100vh-190px)] lg:overflow-y-auto"
          onKeyDown={(event) => list.current && moveInGrid(list.current, event)}
        >
          {isHead && <FormSettings key={data.id + text.name} form={data} forms={forms.data} change={change} />}
          <PositionList
            key={data.id}
            form={data}
            chosen={chosen}
            postures={postures.data ?? []}
            editable={isHead && !save.isPending}
            choose={choose}
            open={(position) => set({ position: position.id, posture: null, side: null, open: '1' })}
            edit={edit}
            change={change}
          />
        </div>
        <div className="flex min-h-[420px] min-w-0 flex-col border-l border-line lg:h-[calc(100vh-190px)]">
          {view === 'floor' && <FloorMap key={data.id} form={data} chosen={chosen} choose={choose} drafts={drafts} />}
          {view === 'cues' && <CueView form={data} chosen={chosen} choose={choose} />}
          {view === 'hall' && <HallView form={data} />}
          {view === 'analysis' && <AnalysisView form={data} chosen={chosen} choose={choose} />}
          {view === 'compare' && <CompareView form={data} forms={forms.data} choose={choose} />}
        </div>
        {open && chosen && (
          <PositionPanel
            key={chosen.id}
            form={data}
            position={chosen}
            postures={postures.data ?? []}
            editable={isHead && !save.isPending}
            edit={(part, what) => edit(chosen, part, what)}
            change={change}
            typing={drafts.set}
            close={() => set({ open: null })}
          />
        )}
      </div>
    </>
  )
}
