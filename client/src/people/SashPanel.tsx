import { useMutation, useQuery } from '@tanstack/react-query'
import { useDeferredValue, useState } from 'react'
import { answer, api, type Schema } from '../api/client'
import { Problem } from '../api/problem'
import { newId } from '../ui/new-id'
import { Choice, Field, FieldError } from '../ui/Field'
import { Panel } from '../ui/Panel'
import { Rows } from '../ui/Rows'
import { Refusal } from '../ui/states'
import { stageWords, weightWords } from '../ui/words'
import { useForm, useForms, usePosture, usePostures } from '../forms/queries'
import { useRefreshPeople, type School } from './queries'

type Text = Schema['SashText']
type Asks = Text['asks']

const layers = ['feet', 'waist', 'hands', 'gaze', 'breath'] as const
const fresh: Text = {
  name: '',
  colour: '#6B7A58',
  hasHalves: false,
  asks: {
    studies: [],
    stage: 'alone',
    accepts: 'finesse',
    layers: ['feet', 'waist', 'hands'],
    bothSides: false,
    weeks: 0,
    lessons: 0,
    postures: [],
  },
}

/** One level: what it studies, what is good enough in it, and how long it takes at least. */
export function SashPanel({
  sash,
  school,
  close,
}: {
  sash?: School['sashes'][number]
  school: School
  close: () => void
}) {
  const refresh = useRefreshPeople()
  const forms = useForms().data ?? []
  const postures = usePostures().data ?? []
  const [text, setText] = useState<Text>(
    sash ? { name: sash.name, colour: sash.colour, hasHalves: sash.hasHalves, asks: sash.asks } : fresh,
  )
  const change = (part: Partial<Text>) => setText((before) => ({ ...before, ...part }))
  const ask = (part: Partial<Asks>) => change({ asks: { ...text.asks, ...part } })
  const asked = useDeferredValue(text)
  const effects = useQuery({
    queryKey: ['sash-effects', sash?.id, asked],
    enabled: sash !== undefined && asked.name.trim() !== '',
    queryFn: () => answer(api.POST('/api/sashes/{id}/effects', { params: { path: { id: sash!.id } }, body: asked })),
    placeholderData: (before) => before,
  })
  const done = () => {
    void refresh()
    close()
  }
  const save = useMutation({
    mutationFn: async () => {
      if (sash)
        await answer(
          api.PUT('/api/sashes/{id}', { params: { path: { id: sash.id } }, body: { text, version: sash.version } }),
        )
      else await answer(api.POST('/api/sashes', { body: { id: newId(), text } }))
    },
    onSuccess: done,
  })
  const problem = save.error instanceof Problem ? save.error : undefined
  const { asks } = text
  const shown = [
    'name',
    'colour',
    'asks.weeks',
    'asks.lessons',
    'asks.layers',
    ...asks.studies.flatMap((_, at) => ['formId', 'toId', 'half'].map((part) => `asks.studies[${at}].${part}`)),
  ]
  return (
    <Panel title={sash?.name ?? 'New sash'} close={close}>
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          save.mutate()
        }}
      >
        <div className="grid grid-cols-[1fr_90px] gap-3">
          <Field label="Name" value={text.name} onChange={(name) => change({ name })} error={problem?.at('name')} />
          <Field
            label="Colour"
            type="color"
            value={text.colour}
            onChange={(colour) => change({ colour })}
            error={problem?.at('colour')}
          />
        </div>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={text.hasHalves}
            onChange={(event) => change({ hasHalves: event.target.checked })}
          />{' '}
          It has a newer and a senior half
        </label>
        <Rows
          label="Studies"
          items={asks.studies}
          add="Add a segment"
          make={() => ({ formId: forms[0]?.id ?? '', fromId: '', toId: '', half: 'none' as const })}
          onChange={(studies) => ask({ studies })}
        >
          {(study, edit, at) => (
            <StudyFields
              study={study}
              edit={edit}
              halves={text.hasHalves}
              forms={forms}
              error={['formId', 'toId', 'half'].map((part) => problem?.at(`asks.studies[${at}].${part}`)).find(Boolean)}
            />
          )}
        </Rows>
        <fieldset className="grid gap-3">
          <legend className="mb-1 font-serif text-base font-semibold">Good enough</legend>
          <div className="grid grid-cols-2 gap-3">
            <StageChoice label="Stage on every posture" value={asks.stage} onChange={(stage) => ask({ stage })} />
            <Choice
              label="Faults still accepted"
              value={asks.accepts}
              onChange={(accepts) => ask({ accepts: accepts as Asks['accepts'] })}
            >
              <option value="nothing">none</option>
              <option value="finesse">finesse</option>
              <option value="shape">shape and finesse</option>
            </Choice>
            <Field
              label="Weeks at least"
              type="number"
              min={0}
              value={String(asks.weeks)}
              onChange={(weeks) => ask({ weeks: Math.trunc(Number(weeks)) })}
              error={problem?.at('asks.weeks')}
            />
            <Field
              label="Lessons at least"
              type="number"
              min={0}
              value={String(asks.lessons)}
              onChange={(lessons) => ask({ lessons: Math.trunc(Number(lessons)) })}
              error={problem?.at('asks.lessons')}
            />
          </div>
          <LayerChoice value={asks.layers} onChange={(value) => ask({ layers: value })} />
          <FieldError error={problem?.at('asks.layers')} />
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              checked={asks.bothSides}
              onChange={(event) => ask({ bothSides: event.target.checked })}
            />{' '}
            Both sides of every posture
          </label>
        </fieldset>
        <Rows
          label="Otherwise for single postures"
          items={asks.postures}
          add="Add a posture"
          make={() => ({
            postureId: postures[0]?.id ?? '',
            stage: null,
            acceptedFaults: [],
            layers: [],
            bothSides: null,
          })}
          onChange={(own) => ask({ postures: own })}
        >
          {(own, edit) => (
            <>
              <div className="grid grid-cols-2 gap-2">
                <Choice
                  label="Posture"
                  value={own.postureId}
                  onChange={(postureId) => edit({ postureId, acceptedFaults: [] })}
                >
                  {postures.map((posture) => (
                    <option key={posture.id} value={posture.id}>
                      {posture.name}
                    </option>
                  ))}
                </Choice>
                <StageChoice
                  label="Stage"
                  none="as the level"
                  value={own.stage}
                  onChange={(stage) => edit({ stage })}
                />
              </div>
              <LayerChoice value={own.layers} onChange={(value) => edit({ layers: value })} />
              <AcceptedFaults
                postureId={own.postureId}
                value={own.acceptedFaults}
                onChange={(acceptedFaults) => edit({ acceptedFaults })}
              />
            </>
          )}
        </Rows>
        {sash && (effects.data ?? []).length > 0 && (
          <section aria-label="What this changes" className="border-l-4 border-ochre-mark pl-3">
            {effects.data!.map((sentence) => (
              <p key={sentence}>{sentence}</p>
            ))}
          </section>
        )}
        {save.isError && <Refusal error={save.error} shown={shown} reload={() => void refresh()} />}
        <button type="submit" className="button button-primary" disabled={save.isPending}>
          {sash ? 'Save the sash' : 'Add the sash'}
        </button>
      </form>
      {sash && <Removal sash={sash} school={school} done={done} />}
    </Panel>
  )
}

interface StudyFieldsProps {
  study: Asks['studies'][number]
  edit: (part: Partial<Asks['studies'][number]>) => void
  halves: boolean
  forms: { id: string; name: string }[]
  error: string | undefined
}

function StudyFields({ study, edit, halves, forms, error }: StudyFieldsProps) {
  const form = useForm(study.formId || undefined).data
  const positions =
    form?.text.positions.map((position, at) => ({
      id: position.id,
      name: `${form.study.positions[at]!.number ?? '–'} ${form.study.positions[at]!.name}`,
    })) ?? []
  const ends = (label: string, value: string, onChange: (id: string) => void) => (
    <Choice label={label} value={value} onChange={onChange}>
      <option value="" disabled>
        choose
      </option>
      {positions.map((position) => (
        <option key={position.id} value={position.id}>
          {position.name}
        </option>
      ))}
    </Choice>
  )
  return (
    <>
      <div className={`grid gap-2 ${halves ? 'grid-cols-2' : ''}`}>
        <Choice label="Form" value={study.formId} onChange={(formId) => edit({ formId, fromId: '', toId: '' })}>
          {forms.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </Choice>
        {halves && (
          <Choice label="For" value={study.half} onChange={(half) => edit({ half: half as typeof study.half })}>
            <option value="none">both halves</option>
            <option value="newer">the newer half</option>
            <option value="senior">the senior half</option>
          </Choice>
        )}
      </div>
      <div className="grid grid-cols-2 gap-2">
        {ends('From', study.fromId, (fromId) => edit({ fromId }))}
        {ends('To', study.toId, (toId) => edit({ toId }))}
      </div>
      <FieldError error={error} />
    </>
  )
}

function StageChoice<T extends Schema['Stage'] | null>({
  label,
  value,
  onChange,
  none,
}: {
  label: string
  value: T
  onChange: (stage: T) => void
  none?: string
}) {
  return (
    <Choice label={label} value={value ?? ''} onChange={(stage) => onChange((stage || null) as T)}>
      {none && <option value="">{none}</option>}
      {(['follows', 'alone', 'flowing', 'settled'] as const).map((stage) => (
        <option key={stage} value={stage}>
          {stageWords[stage]}
        </option>
      ))}
    </Choice>
  )
}

function LayerChoice({ value, onChange }: { value: Schema['Layer'][]; onChange: (value: Schema['Layer'][]) => void }) {
  return (
    <div role="group" aria-label="Layers expected" className="flex flex-wrap gap-x-4">
      {layers.map((layer) => (
        <label key={layer} className="flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={value.includes(layer)}
            onChange={(event) =>
              onChange(layers.filter((one) => (one === layer ? event.target.checked : value.includes(one))))
            }
          />
          {layer}
        </label>
      ))}
    </div>
  )
}

function AcceptedFaults({
  postureId,
  value,
  onChange,
}: {
  postureId: string
  value: string[]
  onChange: (value: string[]) => void
}) {
  const posture = usePosture(postureId || undefined).data
  return (
    <div role="group" aria-label="Faults accepted here">
      {posture?.text.faults.map((fault) => (
        <label key={fault.id} className="flex items-start gap-1.5 py-0.5">
          <input
            type="checkbox"
            className="mt-1"
            checked={value.includes(fault.id)}
            onChange={(event) =>
              onChange(event.target.checked ? [...value, fault.id] : value.filter((id) => id !== fault.id))
            }
          />
          <span>
            accept: {fault.seen} <span className="text-soft">({weightWords[fault.weight]})</span>
          </span>
        </label>
      ))}
    </div>
  )
}

/** A sash that is used goes only when another takes over whoever is at it. */
function Removal({ sash, school, done }: { sash: School['sashes'][number]; school: School; done: () => void }) {
  const [into, setInto] = useState('')
  const remove = useMutation({
    mutationFn: () =>
      answer(api.DELETE('/api/sashes/{id}', { params: { path: { id: sash.id }, query: { into: into || undefined } } })),
    onSuccess: done,
  })
  return (
    <section className="grid gap-3 border-t border-line pt-3">
      {remove.isError && (
        <>
          <Refusal error={remove.error} />
          <Choice label="Taken over by" value={into} onChange={setInto}>
            <option value="" disabled>
              choose a sash
            </option>
            {school.sashes
              .filter((one) => one.id !== sash.id)
              .map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
          </Choice>
        </>
      )}
      <button
        type="button"
        className="quiet-link justify-self-start"
        disabled={remove.isPending}
        onClick={() => remove.mutate()}
      >
        Take {sash.name} off the ladder
      </button>
    </section>
  )
}
