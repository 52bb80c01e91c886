import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api, type Schema } from '../api/client'
import { Problem } from '../api/problem'
import { useSignedIn } from '../app/session'
import { Choice, Field } from '../ui/Field'
import { newId } from '../ui/new-id'
import { Lines } from '../ui/Rows'
import { Failure, Heading, Refusal, Waiting } from '../ui/states'
import { weightWords } from '../ui/words'
import { FormsNav } from './FormsNav'
import { FaultRows } from './PostureEditor'
import { usePostures, useRefreshMaterial, type Side } from './queries'

/** What holds in every posture, and what is learned between two of them. */
export function PrinciplesScreen() {
  const { isHead } = useSignedIn()
  const principles = useQuery({ queryKey: ['principles'], queryFn: () => answer(api.GET('/api/principles')) })
  const links = useQuery({ queryKey: ['links'], queryFn: () => answer(api.GET('/api/links')) })
  const postures = usePostures()
  const [editing, setEditing] = useState<string | null>(null)
  if (principles.isError || links.isError) return <Failure error={(principles.error ?? links.error)!} />
  if (!principles.data || !links.data || !postures.data) return <Waiting what="Opening the principles" />
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
                    <b className="font-serif text-[16px]">{item.text.name}</b>
                    <p className="border-l-4 border-lacquer pl-3">{item.text.keyPoint}</p>
                    <Faults faults={item.text.faults} />
                    {item.text.images.map((image) => (
                      <p key={image} className="text-soft">
                        Image: {image}.
                      </p>
                    ))}
                  </div>
                  {isHead && (
                    <button type="button" className="quiet-link self-start" onClick={() => setEditing(item.id)}>
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
              <button type="button" className="button mt-3" onClick={() => setEditing('new principle')}>
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
                    <b className="font-serif text-[16px]">
                      {named(item.text.fromId, item.text.fromSide)}{' '}
                      <span className="font-sans font-normal text-soft">to</span>{' '}
                      {named(item.text.toId, item.text.toSide)}
                    </b>
                    <p className="border-l-4 border-lacquer pl-3">{item.text.keyPoint}</p>
                    {item.text.cues.length > 0 && <p className="mt-1">{item.text.cues.join(' · ')}</p>}
                    <Faults faults={item.text.faults} />
                  </div>
                  {isHead && (
                    <button type="button" className="quiet-link self-start" onClick={() => setEditing(item.id)}>
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
              <button type="button" className="button mt-3" onClick={() => setEditing('new link')}>
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
  const refresh = useRefreshMaterial()
  const [text, setText] = useState(item.text)
  const finish = async () => {
    await refresh()
    done()
  }
  const save = useMutation({
    mutationFn: () =>
      answer(
        api.PUT('/api/principles/{id}', { params: { path: { id: item.id } }, body: { text, version: item.version } }),
      ),
    onSuccess: finish,
  })
  const remove = useMutation({
    mutationFn: () => answer(api.DELETE('/api/principles/{id}', { params: { path: { id: item.id } } })),
    onSuccess: finish,
  })
  const problem = save.error instanceof Problem ? save.error : undefined
  return (
    <form
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault()
        save.mutate()
      }}
    >
      <div className="grid grid-cols-[80px_1fr] gap-3">
        <Field
          label="Place"
          type="number"
          min={1}
          max={99}
          value={String(text.order)}
          onChange={(order) => setText({ ...text, order: Number(order) || 1 })}
        />
        <Field
          label="Name"
          value={text.name}
          onChange={(name) => setText({ ...text, name })}
          error={problem?.at('name')}
        />
      </div>
      <Field
        label="What is required"
        value={text.keyPoint}
        onChange={(keyPoint) => setText({ ...text, keyPoint })}
        error={problem?.at('keyPoint')}
      />
      <FaultRows
        label="Faults"
        faults={text.faults}
        onChange={(faults) => setText({ ...text, faults })}
        at={(field) => problem?.at(field)}
      />
      <Lines label="Images, one to a line" value={text.images} onChange={(images) => setText({ ...text, images })} />
      <Buttons
        busy={save.isPending}
        done={done}
        remove={item.version === null ? undefined : () => remove.mutate()}
        error={save.error ?? remove.error}
        shown={['name', 'keyPoint']}
      />
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
  const refresh = useRefreshMaterial()
  const [text, setText] = useState(item.text)
  const finish = async () => {
    await refresh()
    done()
  }
  const save = useMutation({
    mutationFn: () =>
      answer(api.PUT('/api/links/{id}', { params: { path: { id: item.id } }, body: { text, version: item.version } })),
    onSuccess: finish,
  })
  const remove = useMutation({
    mutationFn: () => answer(api.DELETE('/api/links/{id}', { params: { path: { id: item.id } } })),
    onSuccess: finish,
  })
  const problem = save.error instanceof Problem ? save.error : undefined
  const simple = postures.filter((one) => !one.isCompound)
  const end = (which: 'from' | 'to', label: string) => (
    <div className="grid grid-cols-[1fr_110px] gap-3">
      <Choice
        label={label}
        value={text[`${which}Id`]}
        error={problem?.at(`${which}Id`)}
        onChange={(id) =>
          setText({ ...text, [`${which}Id`]: id, [`${which}Side`]: simple.find((one) => one.id === id)!.writtenSide })
        }
      >
        {simple.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </Choice>
      <Choice
        label="Side"
        value={text[`${which}Side`]}
        error={problem?.at(`${which}Side`)}
        onChange={(side) => setText({ ...text, [`${which}Side`]: side as Side })}
      >
        <option value="left">left</option>
        <option value="right">right</option>
        <option value="symmetric">no side</option>
      </Choice>
    </div>
  )
  return (
    <form
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault()
        save.mutate()
      }}
    >
      {end('from', 'From')}
      {end('to', 'To')}
      <Field
        label="Key point"
        value={text.keyPoint}
        onChange={(keyPoint) => setText({ ...text, keyPoint })}
        error={problem?.at('keyPoint')}
      />
      <Lines label="Cues, one to a line" value={text.cues} onChange={(cues) => setText({ ...text, cues })} />
      <FaultRows
        label="Faults"
        faults={text.faults}
        onChange={(faults) => setText({ ...text, faults })}
        at={(field) => problem?.at(field)}
      />
      <Buttons
        busy={save.isPending}
        done={done}
        remove={item.version === null ? undefined : () => remove.mutate()}
        error={save.error ?? remove.error}
        shown={['fromId', 'fromSide', 'toId', 'toSide', 'keyPoint']}
      />
    </form>
  )
}

function Buttons({
  busy,
  done,
  remove,
  error,
  shown,
}: {
  busy: boolean
  done: () => void
  remove?: () => void
  error: Error | null
  shown: string[]
}) {
  return (
    <>
      {error && <Refusal error={error} shown={shown} />}
      <div className="flex flex-wrap gap-3">
        <button type="submit" className="button button-primary" disabled={busy}>
          Keep it
        </button>
        <button type="button" className="button" onClick={done}>
          Leave it as it was
        </button>
        {remove && (
          <button type="button" className="quiet-link" onClick={remove}>
            Take it out
          </button>
        )}
      </div>
    </>
  )
}
