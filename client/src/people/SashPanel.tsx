import { useMutation, useQuery } from '@tanstack/react-query'
import { useDeferredValue, useState } from 'react'
import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { useDraft } from '../shared/draft'
import { CheckField, ChoiceField, DraftProblem, DraftRows, NumberInput, SaveBar, TextField } from '../shared/fields'
import { leave } from '../shared/leaving'
import { formQuery, formsQuery, postureQuery, posturesQuery } from '../shared/material'
import { useTakeOut } from '../shared/undo'
import { Checkbox } from '../ui/Checkbox'
import { Choice, FieldError } from '../ui/Field'
import { Panel } from '../ui/Panel'
import { Rows } from '../ui/Rows'
import { Option } from '../ui/Select'
import { Refusal } from '../ui/states'
import { stageWords, weightWords } from '../ui/words'
import { removeSash, sashEffectsQuery, saveSash, type School } from './data'

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

const textOf = ({ name, colour, hasHalves, asks }: School['sashes'][number]): Text => ({
  name,
  colour,
  hasHalves,
  asks,
})

const shown = (field: string) =>
  ['name', 'colour', 'asks.weeks', 'asks.lessons', 'asks.layers'].includes(field) || field.startsWith('asks.studies[')

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
  const { data: forms = [], isSuccess: knowsForms } = useQuery(formsQuery())
  const postures = useQuery(posturesQuery()).data ?? []
  const draft = useDraft<Text>({
    about: ['sash', sash?.id ?? 'new'],
    what: sash ? `the sash ${sash.name}` : 'the new sash',
    text: sash ? textOf(sash) : fresh,
    version: sash?.version ?? null,
  })
  const { text, change } = draft
  const ask = (part: Partial<Asks>) => change({ asks: { ...text.asks, ...part } })
  const asked = useDeferredValue(text)
  const effects = useQuery(sashEffectsQuery(sash?.id, asked))
  const save = useMutation(saveSash)
  const { asks } = text
  return (
    <Panel title={sash?.name ?? 'New sash'} close={() => leave(close)} forWriting>
      <form
        className="grid gap-4"
        noValidate
        onSubmit={draft.submit(
          (wanted, version) => save.mutateAsync({ id: sash?.id ?? draft.made, text: wanted, version }),
          close,
        )}
      >
        <div className="grid grid-cols-[1fr_90px] gap-3">
          <TextField draft={draft} name="name" label="Name" />
          <TextField draft={draft} name="colour" label="Colour" type="color" />
        </div>
        <CheckField draft={draft} name="hasHalves" label="It has a newer and a senior half" />
        {knowsForms && forms.length === 0 && (
          <p className="text-soft">
            There is no form yet that it could study.{' '}
            <Link className="quiet-link" to="/forms">
              Write or bring one
            </Link>
            , then say here which part of it this sash studies.
          </p>
        )}
        {forms.length > 0 && (
          <DraftRows
            draft={draft}
            name="asks.studies"
            label="Studies"
            add="Add a segment"
            make={() => ({ formId: forms[0]!.id, fromId: '', toId: '', half: 'none' as const })}
          >
            {(_, at) => (
              <StudyFields
                study={text.asks.studies[at] ?? { formId: '', fromId: '', toId: '', half: 'none' }}
                edit={(part) =>
                  ask({
                    studies: text.asks.studies.map((study, index) => (index === at ? { ...study, ...part } : study)),
                  })
                }
                halves={text.hasHalves}
                forms={forms}
                error={['formId', 'toId', 'half'].map((part) => draft.at(`asks.studies[${at}].${part}`)).find(Boolean)}
              />
            )}
          </DraftRows>
        )}
        <fieldset className="grid gap-3">
          <legend className="mb-1 font-serif text-base font-semibold">Good enough</legend>
          <div className="grid grid-cols-2 gap-3">
            <StageChoice label="Stage on every posture" value={asks.stage} onChange={(stage) => ask({ stage })} />
            <ChoiceField draft={draft} name="asks.accepts" label="Faults still accepted">
              <Option value="nothing">none</Option>
              <Option value="finesse">finesse</Option>
              <Option value="shape">shape and finesse</Option>
            </ChoiceField>
            <NumberInput draft={draft} name="asks.weeks" label="Weeks at least" />
            <NumberInput draft={draft} name="asks.lessons" label="Lessons at least" />
          </div>
          <LayerChoice value={asks.layers} onChange={(value) => ask({ layers: value })} />
          <FieldError error={draft.at('asks.layers')} />
          <CheckField draft={draft} name="asks.bothSides" label="Both sides of every posture" />
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
                    <Option key={posture.id} value={posture.id}>
                      {posture.name}
                    </Option>
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
        <DraftProblem draft={draft} shown={shown} />
        <SaveBar draft={draft} save={sash ? 'Save the sash' : 'Add the sash'} cancel={() => leave(close)} />
      </form>
      {sash && <Removal sash={sash} school={school} close={close} />}
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
  const form = useQuery(formQuery(study.formId || undefined)).data
  const positions =
    form?.text.positions.map((position, at) => ({
      id: position.id,
      name: `${form.study.positions[at]!.number ?? '–'} ${form.study.positions[at]!.name}`,
    })) ?? []
  const ends = (label: string, value: string, onChange: (id: string) => void) => (
    <Choice label={label} value={value} placeholder="choose" onChange={onChange}>
      {positions.map((position) => (
        <Option key={position.id} value={position.id}>
          {position.name}
        </Option>
      ))}
    </Choice>
  )
  return (
    <>
      <div className={`grid gap-2 ${halves ? 'grid-cols-2' : ''}`}>
        <Choice label="Form" value={study.formId} onChange={(formId) => edit({ formId, fromId: '', toId: '' })}>
          {forms.map((one) => (
            <Option key={one.id} value={one.id}>
              {one.name}
            </Option>
          ))}
        </Choice>
        {halves && (
          <Choice label="For" value={study.half} onChange={(half) => edit({ half: half })}>
            <Option value="none">both halves</Option>
            <Option value="newer">the newer half</Option>
            <Option value="senior">the senior half</Option>
          </Choice>
        )}
      </div>
      <div className="grid grid-cols-2 gap-2">
        {ends('From', study.fromId, (fromId) => edit({ fromId }))}
        {ends('To', study.toId, (toId) => edit({ toId }))}
      </div>
      {form && (
        <p className="flex flex-wrap gap-x-4 gap-y-1">
          <span className="text-soft">Whole:</span>
          {form.text.sections.map((section) => {
            const places = form.text.positions.filter((position) => position.sectionId === section.id)
            return (
              places.length > 0 && (
                <button
                  key={section.id}
                  type="button"
                  className="quiet-link"
                  onClick={() => edit({ fromId: places[0]!.id, toId: places.at(-1)!.id })}
                >
                  {section.name}
                </button>
              )
            )
          })}
        </p>
      )}
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
      {none && <Option value="">{none}</Option>}
      {(['follows', 'alone', 'flowing', 'settled'] as const).map((stage) => (
        <Option key={stage} value={stage}>
          {stageWords[stage]}
        </Option>
      ))}
    </Choice>
  )
}

function LayerChoice({ value, onChange }: { value: Schema['Layer'][]; onChange: (value: Schema['Layer'][]) => void }) {
  return (
    <div role="group" aria-label="Layers expected" className="flex flex-wrap gap-x-4">
      {layers.map((layer) => (
        <Checkbox
          key={layer}
          checked={value.includes(layer)}
          onChange={(checked) => onChange(layers.filter((one) => (one === layer ? checked : value.includes(one))))}
        >
          {layer}
        </Checkbox>
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
  const posture = useQuery(postureQuery(postureId || undefined)).data
  return (
    <div role="group" aria-label="Faults accepted here">
      {posture?.text.faults.map((fault) => (
        <Checkbox
          key={fault.id}

          checked={value.includes(fault.id)}
          onChange={(checked) => onChange(checked ? [...value, fault.id] : value.filter((id) => id !== fault.id))}
        >
          <span>
            accept: {fault.seen} <span className="text-soft">({weightWords[fault.weight]})</span>
          </span>
        </Checkbox>
      ))}
    </div>
  )
}

/** A sash that is used goes only when another takes over whoever is at it. */
function Removal({ sash, school, close }: { sash: School['sashes'][number]; school: School; close: () => void }) {
  const [into, setInto] = useState('')
  const takeAway = useTakeOut()
  const remove = useMutation(removeSash)
  const save = useMutation(saveSash)
  const takeOut = () =>
    takeAway(
      remove.mutateAsync({ id: sash.id, into }),
      into
        ? null
        : {
            what: `taking ${sash.name} off the ladder`,
            says: `${sash.name} was taken off the ladder.`,
            back: () => save.mutateAsync({ id: sash.id, text: textOf(sash), version: null }),
          },
      close,
    )
  return (
    <section className="grid gap-3 border-t border-line pt-3">
      {remove.isError && (
        <>
          <Refusal error={remove.error} />
          <Choice label="Taken over by" value={into} placeholder="choose a sash" onChange={setInto}>
            {school.sashes
              .filter((one) => one.id !== sash.id)
              .map((one) => (
                <Option key={one.id} value={one.id}>
                  {one.name}
                </Option>
              ))}
          </Choice>
        </>
      )}
      <button type="button" className="quiet-link justify-self-start" disabled={remove.isPending} onClick={takeOut}>
        Take {sash.name} off the ladder
      </button>
    </section>
  )
}
