import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core'
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api } from '../api/client'
import { useSignedIn } from '../app/session'
import { useKeys } from '../ui/keys'
import { Ribbon } from '../ui/Ribbon'
import { Refusal } from '../ui/states'
import { people, stageWords } from '../ui/words'
import { useRefreshPeople, type School } from './queries'
import { RunName } from './RunName'
import { SashPanel } from './SashPanel'

type Sash = School['sashes'][number]

/** The ladder, highest sash above: what each level studies, asks and accepts. Dragged into another order; what that does is said before it is done. */
export function LadderView({ school }: { school: School }) {
  const { isHead } = useSignedIn()
  const refresh = useRefreshPeople()
  const kept = school.sashes.toReversed().map((sash) => sash.id)
  const [order, setOrder] = useState(kept)
  const [chosen, setChosen] = useState<string>()
  const moved = order.join() !== kept.join()
  const upwards = order.toReversed()
  const effects = useQuery({
    queryKey: ['ladder-effects', upwards],
    enabled: moved,
    queryFn: () => answer(api.POST('/api/sashes/order/effects', { body: { order: upwards } })),
  })
  const save = useMutation({
    mutationFn: () => answer(api.PUT('/api/sashes/order', { body: { order: upwards } })),
    onSuccess: refresh,
  })
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  useKeys((event) => {
    if (event.key !== 'Escape' || !chosen) return false
    setChosen(undefined)
    return true
  })
  const drop = ({ active, over }: DragEndEvent) =>
    over &&
    active.id !== over.id &&
    setOrder(arrayMove(order, order.indexOf(String(active.id)), order.indexOf(String(over.id))))
  const sash = school.sashes.find((one) => one.id === chosen)
  return (
    <div className={`grid flex-1 border-t border-line ${chosen ? 'lg:grid-cols-[minmax(0,1fr)_440px]' : ''}`}>
      <div className="grid min-w-0 content-start gap-4 px-5 py-4">
        <div className="flex flex-wrap items-baseline justify-between gap-3">
          <p className="max-w-2xl text-soft">
            Lowest sash below.{' '}
            {isHead &&
              'Drag a sash by its handle, or take it with the space bar and move it with the arrows; nothing changes until you keep the new order.'}
          </p>
          {isHead && (
            <button type="button" className="button" onClick={() => setChosen('new')}>
              Add a sash
            </button>
          )}
        </div>
        {moved && (
          <section
            aria-label="What the new order does"
            className="grid gap-2 rounded-r border-l-4 border-ochre-mark bg-paper px-4 py-3"
          >
            {effects.data?.map((sentence) => (
              <p key={sentence}>{sentence}</p>
            ))}
            {effects.data?.length === 0 && <p>Nobody works towards another sash because of it.</p>}
            {save.isError && <Refusal error={save.error} reload={() => void refresh()} />}
            <p className="flex gap-4">
              <button
                type="button"
                className="button button-primary"
                disabled={save.isPending}
                onClick={() => save.mutate()}
              >
                Keep the new order
              </button>
              <button type="button" className="quiet-link" onClick={() => setOrder(kept)}>
                Leave it as it was
              </button>
            </p>
          </section>
        )}
        <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
          <SortableContext items={order} strategy={verticalListSortingStrategy}>
            <ol aria-label="Sash ladder" className="grid gap-2">
              {order.map((id) => {
                const one = school.sashes.find((other) => other.id === id)
                return one && <Rung key={id} sash={one} isChosen={id === chosen} open={() => setChosen(id)} />
              })}
            </ol>
          </SortableContext>
        </DndContext>
      </div>
      {(sash || chosen === 'new') && (
        <SashPanel
          key={sash ? sash.id + sash.version : 'new'}
          sash={sash}
          school={school}
          close={() => setChosen(undefined)}
        />
      )}
    </div>
  )
}

function Rung({ sash, isChosen, open }: { sash: Sash; isChosen: boolean; open: () => void }) {
  const { isHead } = useSignedIn()
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({
    id: sash.id,
    disabled: !isHead,
  })
  const { asks } = sash
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Transform.toString(transform), transition }}
      className={`flex flex-wrap items-center gap-x-4 gap-y-1 rounded border border-line px-4 py-3 ${isChosen ? 'bg-pine-tint' : 'bg-paper'} ${isDragging ? 'relative z-10 shadow-lg' : ''}`}
    >
      {isHead && (
        <button
          type="button"
          className="cursor-grab touch-none rounded border border-line bg-white px-2 py-1 text-soft"
          {...attributes}
          {...listeners}
          aria-label={`Move ${sash.name}`}
        >
          ⠿
        </button>
      )}
      <Ribbon colour={sash.colour} size={40} />
      <span className="w-48">
        <span className="font-serif text-lg font-bold">{sash.name}</span>
        <span className="block text-soft">
          {people(sash.students)}
          {sash.hasHalves && ' · newer and senior'}
        </span>
      </span>
      <span className="min-w-0 flex-1 text-[14px]">
        <span className="block">
          {asks.studies.length === 0 ? (
            <span className="text-ochre">studies nothing yet</span>
          ) : (
            asks.studies.map((study) => (
              <span key={study.fromId + study.half} className="block">
                <RunName {...study} />
                {study.half !== 'none' && <span className="text-soft">, for the {study.half} half</span>}
              </span>
            ))
          )}
        </span>
        <span className="block text-soft">
          {stageWords[asks.stage]} on every posture, {asks.bothSides ? 'both sides' : 'one side'} ·{' '}
          {asks.layers.join(', ')} ·{' '}
          {asks.accepts === 'nothing'
            ? 'no fault accepted'
            : asks.accepts === 'shape'
              ? 'shape and finesse accepted'
              : 'finesse accepted'}{' '}
          · at least {asks.weeks} weeks, {asks.lessons} lessons
        </span>
      </span>
      {isHead && (
        <button type="button" className="quiet-link" aria-label={`Change ${sash.name}`} onClick={open}>
          Change
        </button>
      )}
    </li>
  )
}
