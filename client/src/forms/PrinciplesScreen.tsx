import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schema } from '../api/client'
import { useDraft } from '../shared/draft'
import { ChoiceField, DraftProblem, LinesField, NumberInput, SaveBar, TextField } from '../shared/fields'
import { leave } from '../shared/leaving'
import { posturesQuery, principlesQuery } from '../shared/material'
import { Opening } from '../shared/Opening'
import { useTakeOut } from '../shared/undo'
import { useSignedIn } from '../shared/session'
import { Option } from '../ui/Select'
import { newId } from '../ui/new-id'
import { Heading, Refusal } from '../ui/states'
import { weightWords } from '../ui/words'
import { FormsNav } from './FormsNav'
import { FaultRows } from './FaultRows'
import { linksQuery, removeLink, removePrinciple, saveLink, savePrinciple, type Side } from './data'

/** What holds in every posture, and what is learned between two of them. */
export function PrinciplesScreen() {
  const { isHead } = useSignedIn()
  const principles = useQuery(principlesQuery())
  const links = useQuery(linksQuery())
  const postures = useQuery(posturesQuery())
  const [editing, setEditing] = useState<string | null>(null)
  const edit = (what: string) => leave(() => setEditing(what))
  if (!principles.data || !links.data || !postures.data)
    return <Opening of={[principles, links, postures]} what="Opening the principles" />
  const named = (id: string, side: Side) =>
    `${postures.data.find((one) => one.id === id)?.name ?? '?'}${side === 'symmetric' ? '' : `, ${side}`}`
  return (
    <>
      <FormsNav here="/forms/principles" />
      <Heading
        title="Principles and links"
        facts="What holds in every posture, written down once; and the joins, learned in their own right"
      />
      <div className="grid flex-1 gap-8 border-t border-line bg-paper p-5 lg:grid-cols-2">
        <section>
          <h2 className="text-lg">Principles</h2>
          <ol className="mt-2">
            {principles.data.map((item) =>
              editing === item.id ? (
                <li key={item.id} className="border-b border-fine py-3">
                  <PrincipleForm item={item} done={() => setEditing(null)} />
                </li>
              ) : (
                <li key={item.id} className="grid grid-cols-[28px_1fr_auto] gap-x-2 border-b border-fine py-2">
                  <span className="font-serif font-bold">{item.text.order}</span>
                  <div>
                    <b className="font-serif text-lg">{item.text.name}</b>
                    <p className="border-l-4 border-lacquer pl-3">{item.text.keyPoint}</p>
                    <Faults faults={item.text.faults} />
                    {item.text.images.map((image) => (
                      <p key={image} className="text-soft">
                        Image: {image}.
                      </p>
                    ))}
                  </div>
                  {isHead && (
                    <button type="button" className="quiet-link self-start" onClick={() => edit(item.id)}>
                      Edit
                    </button>
                  )}
                </li>
              ),
            )}
          </ol>
          {isHead &&
            (editing === 'new principle' ? (
              <PrincipleForm
                item={{
                  id: newId(),
                  version: null,
                  text: { order: principles.data.length + 1, name: '', keyPoint: '', faults: [], images: [] },
                }}
                done={() => setEditing(null)}
              />
            ) : (
              <button type="button" className="button mt-3" onClick={() => edit('new principle')}>
                Write a principle
              </button>
            ))}
        </section>
        <section>
          <h2 className="text-lg">Links</h2>
          <p className="text-soft">Written for one side; the mirrored pair is the same link.</p>
          <ul className="mt-2">
            {links.data.map((item) =>
              editing === item.id ? (
                <li key={item.id} className="border-b border-fine py-3">
                  <LinkForm item={item} postures={postures.data} done={() => setEditing(null)} />
                </li>
              ) : (
                <li key={item.id} className="grid grid-cols-[1fr_auto] gap-x-2 border-b border-fine py-2">
                  <div>
                    <b className="font-serif text-lg">
                      {named(item.text.fromId, item.text.fromSide)}{' '}
                      <span className="font-sans font-normal text-soft">to</span>{' '}
                      {named(item.text.toId, item.text.toSide)}
                    </b>
                    <p className="border-l-4 border-lacquer pl-3">{item.text.keyPoint}</p>
                    {item.text.cues.length > 0 && <p className="mt-1">{item.text.cues.join(' · ')}</p>}
                    <Faults faults={item.text.faults} />
                  </div>
                  {isHead && (
                    <button type="button" className="quiet-link self-start" onClick={() => edit(item.id)}>
                      Edit
                    </button>
                  )}
                </li>
              ),
            )}
          </ul>
          {isHead &&
            (editing === 'new link' ? (
              <LinkForm
                item={{
                  id: newId(),
                  version: null,
                  text: {
                    fromId: postures.data[0]?.id ?? '',
                    fromSide: postures.data[0]?.writtenSide ?? 'left',
                    toId: postures.data[1]?.id ?? '',
                    toSide: postures.data[1]?.writtenSide ?? 'left',
                    keyPoint: '',
                    cues: [],
                    faults: [],
                  },
                }}
                postures={postures.data}
                done={() => setEditing(null)}
              />
            ) : (
              <button type="button" className="button mt-3" onClick={() => edit('new link')}>
                Write a link
              </button>
            ))}
        </section>
      </div>
    </>
  )
}

function Faults({ faults }: { faults: Schema['Fault'][] }) {
  return faults.map((fault) => (
    <p key={fault.id} className="mt-1">
      <b>{fault.seen}</b> <span className="text-soft">({weightWords[fault.weight]})</span>{' '}
      {fault.causes.map((cause) => `${cause.why}: ${cause.mend}`).join('; ')}.
    </p>
  ))
}

type Kept<T> = { id: string; version: number | null; text: T }

function PrincipleForm({ item, done }: { item: Kept<Schema['PrincipleText']>; done: () => void }) {
  const takeAway = useTakeOut()
  const [id] = useState(item.id)
  const draft = useDraft({
    about: ['principle', item.version === null ? 'new' : id],
    what: item.text.name ? `the principle ${item.text.name}` : 'the new principle',
    text: item.text,
    version: item.version,
  })
  const save = useMutation(savePrinciple)
  const remove = useMutation(removePrinciple)
  const takeOut = () =>
    takeAway(
      remove.mutateAsync({ id }),
      {
        what: `taking out ${item.text.name}`,
        says: `${item.text.name} was taken out.`,
        back: () => save.mutateAsync({ id, text: item.text, version: null }),
      },
      done,
    )
  return (
    <form
      className="grid gap-3"
      noValidate
      onSubmit={draft.submit((text, version) => save.mutateAsync({ id, text, version }), done)}
    >
      <div className="grid grid-cols-[80px_1fr] gap-3">
        <NumberInput draft={draft} name="order" label="Place" />
        <TextField draft={draft} name="name" label="Name" />
      </div>
      <TextField draft={draft} name="keyPoint" label="What is required" />
      <FaultRows
        label="Faults"
        faults={draft.text.faults}
        onChange={(faults) => draft.change({ faults })}
        at={draft.at}
      />
      <LinesField draft={draft} name="images" label="Images, one to a line" />
      <DraftProblem draft={draft} shown={(field) => ['order', 'name', 'keyPoint'].includes(field)} />
      {remove.isError && <Refusal error={remove.error} />}
      <SaveBar draft={draft} save="Save the principle" cancel={() => leave(done)} />
      {item.version !== null && <TakeOut what="principle" act={takeOut} />}
    </form>
  )
}

function LinkForm({
  item,
  postures,
  done,
}: {
  item: Kept<Schema['LinkText']>
  postures: Schema['PostureItem'][]
  done: () => void
}) {
  const takeAway = useTakeOut()
  const [id] = useState(item.id)
  const draft = useDraft({
    about: ['link', item.version === null ? 'new' : id],
    what: item.version === null ? 'the new link' : 'the link',
    text: item.text,
    version: item.version,
  })
  const save = useMutation(saveLink)
  const remove = useMutation(removeLink)
  const takeOut = () =>
    takeAway(
      remove.mutateAsync({ id }),
      {
        what: 'taking out a link',
        says: 'The link was taken out.',
        back: () => save.mutateAsync({ id, text: item.text, version: null }),
      },
      done,
    )
  const simple = postures.filter((one) => !one.isCompound)
  const end = (which: 'from' | 'to', label: string) => (
    <div className="grid grid-cols-[1fr_130px] gap-3">
      <ChoiceField
        draft={draft}
        name={`${which}Id`}
        label={label}
        then={(chosen) => draft.change({ [`${which}Side`]: simple.find((one) => one.id === chosen)!.writtenSide })}
      >
        {simple.map((one) => (
          <Option key={one.id} value={one.id}>
            {one.name}
          </Option>
        ))}
      </ChoiceField>
      <ChoiceField draft={draft} name={`${which}Side`} label="Side">
        <Option value="left">left</Option>
        <Option value="right">right</Option>
        <Option value="symmetric">no side</Option>
      </ChoiceField>
    </div>
  )
  return (
    <form
      className="grid gap-3"
      noValidate
      onSubmit={draft.submit((text, version) => save.mutateAsync({ id, text, version }), done)}
    >
      {end('from', 'From')}
      {end('to', 'To')}
      <TextField draft={draft} name="keyPoint" label="Key point" />
      <LinesField draft={draft} name="cues" label="Cues, one to a line" />
      <FaultRows
        label="Faults"
        faults={draft.text.faults}
        onChange={(faults) => draft.change({ faults })}
        at={draft.at}
      />
      <DraftProblem
        draft={draft}
        shown={(field) => ['fromId', 'fromSide', 'toId', 'toSide', 'keyPoint'].includes(field)}
      />
      {remove.isError && <Refusal error={remove.error} />}
      <SaveBar draft={draft} save="Save the link" cancel={() => leave(done)} />
      {item.version !== null && <TakeOut what="link" act={takeOut} />}
    </form>
  )
}

const TakeOut = ({ what, act }: { what: string; act: () => void }) => (
  <button type="button" className="quiet-link justify-self-start" onClick={() => leave(act)}>
    Take the {what} out
  </button>
)
