import { useMutation, useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import type { Schema } from '../api/client'
import { useEngine, type Engine } from '../engine/engine'
import { useDraft } from '../shared/draft'
import { DraftProblem } from '../shared/fields'
import { leave } from '../shared/leaving'
import { principlesQuery } from '../shared/material'
import { useTakeOut } from '../shared/undo'
import { useWays } from '../shared/ways'
import { Field } from '../ui/Field'
import { Lines, Rows } from '../ui/Rows'
import { Heading, Refusal } from '../ui/states'
import { TabList, TabPanel, Tabs } from '../ui/Tabs'
import { addPosture, removePosture, savePosture, type ChangePosture, type PostureText } from './data'
import { FaultRows } from './FaultRows'
import { FormsNav } from './FormsNav'
import { countedOf } from '../shared/counted'
import { useLent } from './lent'
import { NotationField } from './NotationField'
import { AboutPage } from './PostureAbout'
import { StepsPage } from './PostureSteps'
import { VersionsEditor } from './VersionsEditor'

const pages = [
  { value: 'steps', name: 'Counts and steps' },
  { value: 'about', name: 'About it' },
  { value: 'faults', name: 'Faults' },
  { value: 'aids', name: 'Aids' },
  { value: 'versions', name: 'Adapted versions' },
] as const

// The same through every drawing: a key that is written changes nothing in them.
const room = <FormsNav here="/forms/postures" />
const parts = <TabList label="Part" options={pages} />

/** Everything a head writes about a posture. It is kept when the head says so; until then nothing changes for anybody. */
export function PostureEditor({
  posture,
  postures,
  done,
}: {
  posture: Schema['PostureResponse']
  postures: Schema['PostureItem'][]
  done: () => void
}) {
  const navigate = useNavigate()
  const takeAway = useTakeOut()
  const [search] = useSearchParams()
  const [page, setPage] = useState<(typeof pages)[number]['value']>(search.get('version') ? 'versions' : 'steps')
  const draft = useDraft<PostureText>({
    about: ['posture', posture.id],
    what: `the posture ${posture.text.name}`,
    text: posture.text,
    version: posture.version,
  })
  const save = useMutation(savePosture)
  const remove = useMutation(removePosture)
  const bringBack = useMutation(addPosture)
  const { text, change, at } = draft
  const takeOut = () =>
    takeAway(
      remove.mutateAsync({ id: posture.id }),
      {
        what: `taking out ${posture.text.name}`,
        says: `${posture.text.name} was taken out of the catalogue.`,
        back: () => bringBack.mutateAsync({ id: posture.id, text: posture.text }),
      },
      () => {
        draft.forget()
        void navigate('/forms/postures')
      },
    )
  const keep = draft.submit(
    (wanted, version) => save.mutateAsync({ id: posture.id, text: wanted, version: version! }),
    done,
  )
  return (
    <Tabs value={page} onChange={setPage}>
      {room}
      <Heading
        title={text.name || 'A posture without a name'}
        facts={
          text.writtenSide === 'symmetric'
            ? 'no left or right'
            : `written for the ${text.writtenSide}; the other side is its mirror`
        }
      >
        {parts}
        <button type="button" className="button" onClick={() => leave(done)}>
          {draft.dirty ? 'Cancel' : 'Back'}
        </button>
        <button
          type="button"
          className="button button-primary"
          disabled={!draft.dirty || draft.saving}
          onClick={() => keep()}
        >
          Save the posture
        </button>
      </Heading>
      <div className="px-5 pb-3 empty:hidden">
        <DraftProblem draft={draft} shown={shownOn(page)} />
        {remove.isError && <Refusal error={remove.error} />}
      </div>
      <div className="flex-1 border-t border-line bg-paper p-5">
        <TabPanel value="steps">
          <StepsPage draft={text} change={change} at={at} postures={postures} />
        </TabPanel>
        <TabPanel value="about">
          <AboutPage draft={draft} id={posture.id} postures={postures} takeOut={takeOut} />
        </TabPanel>
        <TabPanel value="faults">
          <FaultsPage draft={text} change={change} at={at} />
        </TabPanel>
        <TabPanel value="aids">
          <AidsPage draft={text} change={change} at={at} />
        </TabPanel>
        <TabPanel value="versions">
          <VersionsEditor draft={text} change={change} at={at} />
        </TabPanel>
      </div>
    </Tabs>
  )
}

/** What a page shows beside its fields; what belongs to another page is said above. */
const shownOn = (page: string) => (field: string) =>
  (page === 'steps' && /^(entry|counts|merged|parts|loop)/.test(field)) ||
  (page === 'about' && /^(name|keyPoint|writtenSide|namedBy|needs|changes)/.test(field)) ||
  (page === 'aids' && /^checkpoints\[\d+\]\.measure/.test(field)) ||
  (page === 'faults' && /^faults\[\d+\]\.seen/.test(field)) ||
  (page === 'versions' && /^versions\[\d+\]\.(counts|entry|start)/.test(field))

function FaultsPage({
  draft,
  change,
  at,
}: {
  draft: PostureText
  change: ChangePosture
  at: (field: string) => string | undefined
}) {
  const principles = useQuery(principlesQuery()).data ?? []
  return (
    <div className="max-w-3xl">
      <FaultRows
        label="Usual faults"
        faults={draft.faults}
        onChange={(faults) => change({ faults })}
        at={at}
        principles={principles}
      />
    </div>
  )
}

/** What was measured on the end shape; a checkpoint that its own posture does not fulfil is an error. */
function Looked({ look }: { look: ReturnType<Engine['look']> }) {
  return (
    look && (
      <p className={look.fulfilled ? 'text-pine' : 'text-lacquer'} role={look.fulfilled ? undefined : 'alert'}>
        {look.fulfilled ? 'The end shape fulfils it' : 'The end shape does not fulfil it'}: {look.says}.
      </p>
    )
  )
}

function AidsPage({
  draft,
  change,
  at,
}: {
  draft: PostureText
  change: ChangePosture
  at: (field: string) => string | undefined
}) {
  const engine = useEngine().data
  const { pivots } = useWays()
  const whole = useLent(draft)
  const of = useMemo(() => countedOf(whole, undefined, pivots.onBall), [whole, pivots.onBall])
  return (
    <div className="grid max-w-3xl gap-5">
      <Lines label="Images, one to a line" value={draft.images} onChange={(images) => change({ images })} />
      <Field
        label="What the movement is for"
        value={draft.application}
        onChange={(application) => change({ application })}
      />
      <Field
        label="Our own recording, for whoever was away: where it is"
        value={draft.recording}
        onChange={(recording) => change({ recording })}
      />
      <Rows
        label="Look at the end shape"
        items={draft.checkpoints}
        add="Add a checkpoint"
        make={() => ({ here: '', against: '', tolerance: '', seenFrom: '', measure: '' })}
        onChange={(checkpoints) => change({ checkpoints })}
      >
        {(item, edit, place) => (
          <div className="grid grid-cols-2 gap-3">
            <Field label="This" value={item.here} onChange={(here) => edit({ here })} />
            <Field label="against that" value={item.against} onChange={(against) => edit({ against })} />
            <Field label="within" value={item.tolerance} onChange={(tolerance) => edit({ tolerance })} />
            <Field label="seen from" value={item.seenFrom} onChange={(seenFrom) => edit({ seenFrom })} />
            <div className="col-span-2">
              <NotationField
                label="Measured on its own end shape"
                value={item.measure}
                onChange={(measure) => edit({ measure })}
                notation={engine?.measure}
                error={at(`checkpoints[${place}].measure`)}
              />
              {engine && <Looked look={engine.look(of, item.measure)} />}
            </div>
          </div>
        )}
      </Rows>
      <Rows
        label="Not quite true, but helpful"
        items={draft.simplifications}
        add="Add a simplification"
        make={() => ({ says: '', getsWrong: '', replaceWhen: '' })}
        onChange={(simplifications) => change({ simplifications })}
      >
        {(item, edit) => (
          <>
            <Field label="It says" value={item.says} onChange={(says) => edit({ says })} />
            <Field label="What it gets wrong" value={item.getsWrong} onChange={(getsWrong) => edit({ getsWrong })} />
            <Field label="Replace it" value={item.replaceWhen} onChange={(replaceWhen) => edit({ replaceWhen })} />
          </>
        )}
      </Rows>
    </div>
  )
}
