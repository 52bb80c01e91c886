import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import { leave } from '../shared/leaving'
import { formQuery, formsQuery, posturesQuery } from '../shared/material'
import { Opening } from '../shared/Opening'
import { useSearch } from '../shared/search'
import { useSignedIn } from '../shared/session'
import { useUndo } from '../shared/undo'
import { rulesQuery } from '../shared/ways'
import { DropdownMenu } from '../ui/DropdownMenu'
import { useGrid } from '../ui/grid'
import { Kbd } from '../ui/Kbd'
import { useKeys } from '../ui/keys'
import { newId } from '../ui/new-id'
import { Empty, Heading, Refusal } from '../ui/states'
import { TabList, TabPanel, Tabs } from '../ui/Tabs'
import { minutesOf } from '../ui/words'
import { AnalysisView } from './AnalysisView'
import { CompareView } from './CompareView'
import { CueView } from './CueView'
import { addForm, saveForm, type Form, type FormText, type Position } from './data'
import { DraftStore } from './draft'
import { emptyForm, freeName } from './empty-form'
import { FloorMap } from './FloorMap'
import { FormSettings } from './FormSettings'
import { FormsNav } from './FormsNav'
import { HallView } from './HallView'
import { mergeForms } from './merge'
import { PositionList } from './PositionList'
import { PositionPanel } from './PositionPanel'
import { StartPanel } from './StartPanel'
import { decimal } from '../ui/writing'

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
  const [search, set] = useSearch()
  const { last, busy, did, undo, clear, refused } = useUndo()
  const [drafts] = useState(() => new DraftStore())
  const grid = useGrid<HTMLDivElement>()
  const forms = useQuery(formsQuery())
  const postures = useQuery(posturesQuery())
  const rules = useQuery(rulesQuery()).data
  const id = formId ?? forms.data?.[0]?.id
  const form = useQuery(formQuery(id))
  const { save, change: saveChange } = useFormChanges(id)
  const add = useMutation(addForm)

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
    if (!text) return Promise.resolve()
    return saveChange(text, wanted).then(({ before, after }) => {
      did({ what, back: () => saveChange(after, before) })
      then?.()
    })
  }
  /** A change nobody waits for: why it was refused stands above the form. */
  const alter = (what: string, wanted: FormText, then?: () => void) =>
    void change(what, wanted, then).catch(() => undefined)
  const edit = (position: Position, part: Partial<Position>, what: string) =>
    text &&
    alter(what, {
      ...text,
      positions: text.positions.map((one) => (one.id === position.id ? { ...one, ...part } : one)),
    })
  const nameOf = (position: Position) =>
    data?.study.positions.find((one) => one.id === position.id)?.name ?? 'the position'
  const mirror = (position: Position) =>
    position.side !== 'symmetric' &&
    edit(position, { side: position.side === 'left' ? 'right' : 'left' }, `mirroring ${nameOf(position)}`)

  useKeys((event) => {
    if (event.key !== 'm' || !isHead || !chosen) return false
    mirror(chosen)
    return true
  })

  if (!forms.data || (id && !data)) return <Opening of={[forms, form]} what="Opening the form" />
  if (!data || !text) {
    return (
      <>
        <FormsNav here="/forms" />
        {isHead ? <StartPanel /> : <Empty>No form has been written down yet.</Empty>}
      </>
    )
  }

  const write = () => {
    const made = newId()
    const name = freeName(
      'New form',
      forms.data.map((one) => one.name),
    )
    add.mutate({ id: made, text: emptyForm(name) }, { onSuccess: () => void navigate(`/forms/${made}`) })
  }

  const { analysis, findings, floor } = data.study
  const open_ = findings.filter((finding) => finding.acceptedBecause === null && finding.severity !== 'note')
  return (
    <Tabs value={view} onChange={(value) => set({ view: value === 'floor' ? null : value })}>
      <div className={oneScreen}>
        <FormsNav here="/forms" />
        <Heading
          title={text.name}
          facts={
            text.positions.length === 0
              ? 'no positions yet'
              : `${analysis.positions} positions · ${analysis.postures} different postures · ${analysis.links} links · ${minutesOf(Math.round(analysis.runThroughSeconds / 6) * 6)} at ${rules?.smoothSeconds ?? '…'} s a count · closes ${decimal(floor.need.fromHome)} m from where it began`
          }
        >
          {open_.length > 0 && (
            <span className="font-bold text-ochre">
              {open_.length === 1 ? '1 thing disagrees' : `${open_.length} things disagree`}
            </span>
          )}
          <DropdownMenu
            name="Another form"
            items={[
              ...forms.data
                .filter((one) => one.id !== id)
                .map((one) => ({
                  name: `${one.name}, ${one.positions} positions`,
                  act: () => {
                    clear()
                    void navigate(`/forms/${one.id}`)
                  },
                })),
              ...(isHead ? [{ name: 'Write a new one', act: write }] : []),
            ]}
          />
          {isHead && (
            <button type="button" className="button" disabled={!last || busy} onClick={undo}>
              {last ? `Undo ${last.what}` : 'Undo'} <Kbd>z</Kbd>
            </button>
          )}
          <TabList label="View" options={views} />
        </Heading>
        {(save.error ?? add.error ?? refused) && (
          <div className="px-5 pb-3">
            <Refusal
              error={(save.error ?? add.error ?? refused)!}
              reload={() => {
                clear()
                save.reset()
                void form.refetch()
              }}
            />
          </div>
        )}
        <div
          className={`grid min-h-0 flex-1 border-t border-line lg:grid-rows-[minmax(0,1fr)] ${open ? 'lg:grid-cols-[minmax(300px,380px)_minmax(0,1fr)_minmax(340px,400px)]' : 'lg:grid-cols-[minmax(320px,436px)_minmax(0,1fr)]'}`}
        >
          <div {...grid} className="bg-paper lg:overflow-y-auto">
            {isHead && <FormSettings key={`about ${data.id}`} form={data} forms={forms.data} change={change} />}
            <PositionList
              key={data.id}
              form={data}
              chosen={chosen}
              postures={postures.data ?? []}
              editable={isHead}
              choose={choose}
              open={(position) => leave(() => set({ position: position.id, posture: null, side: null, open: '1' }))}
              edit={edit}
              change={alter}
            />
          </div>
          <div className="flex min-h-[420px] min-w-0 flex-col border-l border-line lg:min-h-0">
            <TabPanel value="floor" className={filled}>
              <FloorMap key={data.id} form={data} chosen={chosen} choose={choose} drafts={drafts} />
            </TabPanel>
            <TabPanel value="cues" className={filled}>
              <CueView form={data} chosen={chosen} choose={choose} />
            </TabPanel>
            <TabPanel value="hall" className={filled}>
              <HallView form={data} />
            </TabPanel>
            <TabPanel value="analysis" className={filled}>
              <AnalysisView form={data} chosen={chosen} choose={choose} />
            </TabPanel>
            <TabPanel value="compare" className={filled}>
              <CompareView form={data} forms={forms.data} choose={choose} />
            </TabPanel>
          </div>
          {open && chosen && (
            <PositionPanel
              key={chosen.id}
              form={data}
              position={chosen}
              postures={postures.data ?? []}
              editable={isHead}
              edit={(part, what) => edit(chosen, part, what)}
              change={alter}
              typing={drafts.set}
              close={() => set({ open: null })}
            />
          )}
        </div>
      </div>
    </Tabs>
  )
}

/** On a wide screen the page is as high as the window, and its parts scroll each by itself. */
const oneScreen = 'flex flex-auto flex-col lg:h-0 lg:min-h-150'
const filled = 'flex min-h-0 flex-1 flex-col outline-none data-[state=inactive]:hidden'

/** Saves changes of a form one after the other, each on top of what has been saved meanwhile; what is typed elsewhere on the screen stays as it is. */
function useFormChanges(id: string | undefined) {
  const queries = useQueryClient()
  const save = useMutation(saveForm)
  const waiting = useRef<Promise<unknown>>(Promise.resolve())
  /**
   * @param base What the change was made from: only what differs from it is changed.
   * @returns The form before and after it; from the one to the other and back is the undo.
   */
  const change = (base: FormText, wanted: FormText): Promise<{ before: FormText; after: FormText }> => {
    const next = waiting.current.then(async () => {
      const now = queries.getQueryData<Form>(['form', id])!
      const after = mergeForms(base, wanted, now.text)
      await save.mutateAsync({ id: id!, text: after, version: now.version })
      return { before: now.text, after }
    })
    waiting.current = next.catch(() => undefined)
    return next
  }
  return { save, change }
}
