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
import type { Schema } from '../api/client'
import { leave } from '../shared/leaving'
import { useOpened } from '../shared/opened'
import { useSignedIn } from '../shared/session'
import { Ribbon } from '../ui/Ribbon'
import { Empty, Refusal } from '../ui/states'
import { people, stageWords } from '../ui/words'
import { beginLadder, ladderEffectsQuery, orderSashes, type School } from './data'
import { RunName } from './RunName'
import { SashPanel } from './SashPanel'

type Sash = School['sashes'][number]

/** Core's ladders to begin with, in words. */
const patterns: readonly { pattern: Schema['LadderPattern']; name: string; says: string }[] = [
  { pattern: 'threeSteps', name: 'Three steps', says: 'beginners, middle and seniors, a year or two each' },
  {
    pattern: 'fiveSashes',
    name: 'Five sashes',
    says: 'White, Straw, Moss, Indigo and Ink, the three between in halves',
  },
  {
    pattern: 'sashATerm',
    name: 'A sash for every term',
    says: 'seven of them, for a long form learned section by section',
  },
]

/** The ladder, highest sash above: what each level studies, asks and accepts. Dragged into another order; what that does is said before it is done. */
export function LadderView({ school }: { school: School }) {
  const { isHead } = useSignedIn()
  const kept = school.sashes.toReversed().map((sash) => sash.id)
  const [wanted, setOrder] = useState<string[]>()
  // An order of other sashes than there are now means nothing any more.
  const order = wanted && wanted.toSorted().join() === kept.toSorted().join() ? wanted : kept
  const { opened: chosen, open, close } = useOpened<string>()
  const moved = order.join() !== kept.join()
  const upwards = order.toReversed()
  const effects = useQuery(ladderEffectsQuery(upwards, moved))
  const save = useMutation(orderSashes)
  const begin = useMutation(beginLadder)
  const choose = (next: string) => leave(() => open(next))
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
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
            <button type="button" className="button" onClick={() => choose('new')}>
              Add a sash
            </button>
          )}
        </div>
        {kept.length === 0 && isHead && (
          <Empty next={[{ name: 'Add the first sash', act: () => choose('new') }]}>
            <p>There is no sash yet. The ladder says what each level studies and what is good enough in it.</p>
            <p className="mt-3">Write it sash by sash, or begin with one of these and change what is different:</p>
            <ul className="mt-2 grid gap-2">
              {patterns.map(({ pattern, name, says }) => (
                <li key={pattern}>
                  <button
                    type="button"
                    className="quiet-link"
                    disabled={begin.isPending}
                    onClick={() => begin.mutate({ pattern })}
                  >
                    {name}
                  </button>
                  : {says}
                </li>
              ))}
            </ul>
            {begin.isError && <Refusal error={begin.error} />}
          </Empty>
        )}
        {moved && (
          <section
            aria-label="What the new order does"
            className="grid gap-2 rounded-r border-l-4 border-ochre-mark bg-paper px-4 py-3"
          >
            {effects.data?.map((sentence) => (
              <p key={sentence}>{sentence}</p>
            ))}
            {effects.data?.length === 0 && <p>Nobody works towards another sash because of it.</p>}
            {save.isError && <Refusal error={save.error} />}
            <p className="flex gap-4">
              <button
                type="button"
                className="button button-primary"
                disabled={save.isPending}
                onClick={() => save.mutate({ order: upwards })}
              >
                Keep the new order
              </button>
              <button type="button" className="quiet-link" onClick={() => setOrder(kept)}>
                Cancel
              </button>
            </p>
          </section>
        )}
        <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
          <SortableContext items={order} strategy={verticalListSortingStrategy}>
            <ol aria-label="Sash ladder" className="grid gap-2">
              {order.map((id, place) => {
                const one = school.sashes.find((other) => other.id === id)
                return (
                  one && (
                    <Rung
                      key={id}
                      sash={one}
                      isChosen={id === chosen}
                      at={place === 0 ? 'top' : place === order.length - 1 ? 'foot' : 'between'}
                      open={() => choose(id)}
                      move={(by) => setOrder(arrayMove(order, place, place + by))}
                    />
                  )
                )
              })}
            </ol>
          </SortableContext>
        </DndContext>
      </div>
      {(sash || chosen === 'new') && <SashPanel key={sash?.id ?? 'new'} sash={sash} school={school} close={close} />}
    </div>
  )
}

function Rung({
  sash,
  isChosen,
  open,
  move,
  at,
}: {
  sash: Sash
  isChosen: boolean
  open: () => void
  move: (by: -1 | 1) => void
  at: 'top' | 'between' | 'foot'
}) {
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
      <span className="min-w-0 flex-1 text-base">
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
        <span className="flex gap-3">
          <button
            type="button"
            className="quiet-link"
            aria-label={`${sash.name} higher`}
            disabled={at === 'top'}
            onClick={() => move(-1)}
          >
            Up
          </button>
          <button
            type="button"
            className="quiet-link"
            aria-label={`${sash.name} lower`}
            disabled={at === 'foot'}
            onClick={() => move(1)}
          >
            Down
          </button>
          <button type="button" className="quiet-link" aria-label={`Change ${sash.name}`} onClick={open}>
            Change
          </button>
        </span>
      )}
    </li>
  )
}
