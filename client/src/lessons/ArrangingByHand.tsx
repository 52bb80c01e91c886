import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState, type KeyboardEvent, type ReactNode } from 'react'
import { Opening } from '../shared/Opening'
import { useKeys } from '../ui/keys'
import { Refusal } from '../ui/states'
import { dayMonth } from '../ui/words'
import { editWords, halved, pinned, type ArrangedBlock, type Arrangement, type LessonEdit } from './arranging'
import { BeforeClass } from './BeforeClass'
import { OtherwiseTonight } from './OtherwiseTonight'
import { reTeachQuery, saveArrangement, waysOutKey, waysOutQuery, type Lesson } from './data'

/** What can be done to an arrangement by hand; the rest arranges itself around it. */
export interface Arranging {
  may: boolean
  busy: boolean
  error: Error | null
  pin: (block: ArrangedBlock, to: { start?: number | null; teacherId?: string | null }) => void
  edit: (...more: LessonEdit[]) => void
  /** One of the edits was none, wherever it stands. */
  takeBack: (edit: LessonEdit) => void
  undo: () => void
  /** A key on a block: whether it did something. */
  key: (event: KeyboardEvent, block: ArrangedBlock) => boolean
}

export function useArranging(lesson: Lesson, arrangement: Arrangement | undefined, may: boolean): Arranging {
  const client = useQueryClient()
  const save = useMutation(saveArrangement)
  const edits = arrangement?.edits ?? []
  // Once it is arranged anew the next press counts, though what follows from the one before is still being asked for.
  const busy = save.isPending && save.variables.version === arrangement?.version
  const keep = (wanted: LessonEdit[]) => {
    if (!arrangement || !may || busy) return
    // What is still being tried for the lesson as it was would keep this waiting.
    void client.cancelQueries({ queryKey: waysOutKey(lesson) })
    save.mutate(
      { lesson, edits: wanted, version: arrangement.version },
      { onError: () => void client.invalidateQueries({ queryKey: waysOutKey(lesson) }) },
    )
  }
  const pin: Arranging['pin'] = (block, to) => keep(pinned(edits, block, to))
  const edit = (...more: LessonEdit[]) => keep([...edits, ...more])
  const takeBack = (one: LessonEdit) => keep(edits.filter((edit) => edit !== one))
  const undo = () => edits.length > 0 && keep(edits.slice(0, -1))
  useKeys((event) => {
    if (event.key !== 'z' || !may || edits.length === 0) return false
    undo()
    return true
  })
  const key: Arranging['key'] = (event, block) => {
    if (!may || !arrangement) return false
    if (block.cohortId === null) {
      const minutes = lasting(block, event.key)
      if (minutes === undefined) return false
      edit({ kind: 'everybody', does: block.kind, minutes })
      event.preventDefault()
      event.stopPropagation()
      return true
    }
    if (!block.task) return false
    const minute = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0
    const other = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0
    if (event.shiftKey && minute !== 0) pin(block, { start: block.start + minute })
    else if (event.shiftKey && other !== 0) {
      const free = leaders(arrangement, block)
      const at = free.findIndex((teacher) => teacher.id === block.ledBy)
      pin(block, { teacherId: free[(at + other + free.length) % free.length]?.id ?? null })
    } else if (event.key === 'p')
      if (block.fixed) edit({ kind: 'free', key: block.task })
      else pin(block, { start: block.start, teacherId: block.ledBy })
    else if (event.key === '+' || event.key === '-')
      edit({
        kind: 'stretch',
        key: block.task,
        minutes: Math.max(1, block.end - block.start + (event.key === '+' ? 1 : -1)),
      })
    else if (event.key === 's' && block.end - block.start > 1) edit(halved(block))
    else if (event.key === 'Delete') edit({ kind: 'takeOut', key: block.task })
    else return false
    event.preventDefault()
    event.stopPropagation()
    return true
  }
  return { may, busy, error: save.error, pin, edit, takeBack, undo, key }
}

/** How long what everybody does is to last after a key; undefined for any other. */
const lasting = (block: ArrangedBlock, key: string) =>
  key === '+'
    ? block.end - block.start + 1
    : key === '-'
      ? block.end - block.start - 1
      : key === 'Delete'
        ? 0
        : undefined

/** Whoever may lead a block: all of the cohorts in it. */
export const leaders = (arrangement: Arrangement, block: ArrangedBlock) =>
  arrangement.teachers.filter((teacher) =>
    [block.cohortId!, ...block.with].every((cohort) => teacher.mayLead.includes(cohort)),
  )

interface ByHandProps {
  lesson: Lesson
  /** When it begins. */
  start: string
  arrangement: Arrangement
  arranging: Arranging
}

/** What has no room, and what was done last. */
export function ArrangingByHand({ lesson, start, arrangement, arranging }: ByHandProps) {
  const last = arrangement.edits.at(-1)
  const [otherwise, setOtherwise] = useState(false)
  return (
    <div className="grid gap-2 px-5 pb-3" aria-busy={arranging.busy}>
      {arranging.error && <Refusal error={arranging.error} />}
      {arrangement.shortfalls.length > 0 && (
        <Shortfalls lesson={lesson} arrangement={arrangement} arranging={arranging} />
      )}
      {arranging.may && (
        <div className="flex flex-wrap items-center gap-x-6">
          <WhoIsThere arrangement={arrangement} arranging={arranging} />
          <button
            type="button"
            className="quiet-link"
            aria-expanded={otherwise}
            onClick={() => setOtherwise(!otherwise)}
          >
            Something else is otherwise
          </button>
        </div>
      )}
      <BeforeClass
        booked={arrangement.beforeClass}
        start={start}
        takeBack={
          arranging.may
            ? (id) =>
                arrangement.edits
                  .filter((edit) => edit.kind === 'makesUp' && edit.id === id)
                  .forEach(arranging.takeBack)
            : undefined
        }
      />
      {arranging.may && <ManyShare lesson={lesson} arrangement={arrangement} arranging={arranging} />}
      {arranging.may && otherwise && (
        <OtherwiseTonight lesson={lesson} arrangement={arrangement} arranging={arranging} />
      )}
      {last && (
        <p className="text-soft">
          {editWords(last, arrangement)}.{' '}
          {arranging.may && (
            <button type="button" className="quiet-link" disabled={arranging.busy} onClick={arranging.undo}>
              Undo <kbd>z</kbd>
            </button>
          )}
        </p>
      )}
    </div>
  )
}

/** So much of what has no room then is read at once. */
const GIVES_WAY = 2

/** What many of a cohort have open, or learned before the school did it otherwise: to be taught again in this lesson, with what it takes. */
export function ManyShare({
  lesson,
  arrangement,
  arranging,
  title = 'To teach again',
}: Omit<ByHandProps, 'arranging' | 'start'> & {
  arranging: Pick<Arranging, 'may' | 'busy' | 'edit'>
  title?: ReactNode
}) {
  const offers = useQuery(reTeachQuery(lesson, arrangement.version, arranging.may)).data
  if (!offers?.length) return null
  return (
    <section aria-label="To teach again">
      <b>{title}</b>
      <ul>
        {offers.map(({ task, cohort, have, observed, changedSince, way, givesWay }) => (
          <li key={task.key} className="flex flex-wrap gap-x-3">
            <span>
              {cohort}: {task.what},{' '}
              {changedSince
                ? `done so since ${dayMonth(changedSince)}; ${have} of ${observed} learned it before.`
                : `${have} of ${observed}.`}{' '}
              {way && `${way}. `}
              <span className="text-soft">
                {givesWay.length === 0 ? 'There is room for it.' : givesWay.slice(0, GIVES_WAY).join(' ')}
                {givesWay.length > GIVES_WAY && ` And ${givesWay.length - GIVES_WAY} more.`}
              </span>
            </span>
            <button
              type="button"
              className="quiet-link"
              disabled={arranging.busy}
              onClick={() => arranging.edit({ kind: 'add', task })}
            >
              {changedSince ? 'Teach the difference' : 'Teach it again'}, {task.minutes} min
            </button>
          </li>
        ))}
      </ul>
    </section>
  )
}

/** So many are read at once; the others on asking. */
const AT_ONCE = 3

/** What has no room, each with a way out, and one for all of it. */
function Shortfalls({ lesson, arrangement, arranging }: Omit<ByHandProps, 'start'>) {
  const [asks, setAsks] = useState(false)
  const [all, setAll] = useState(false)
  const { shortfalls } = arrangement
  const left = shortfalls.flatMap((one) => one.task ?? [])
  const wayOut = (one: Arrangement['shortfalls'][number]): LessonEdit =>
    one.task ? { kind: 'takeOut', key: one.task } : { kind: 'allowAlone', cohortId: one.cohortId, minutes: one.minutes }
  return (
    <div role="note" className="border-l-4 border-lacquer pl-3">
      <b>Not everything can be kept.</b>
      <ul>
        {(all ? shortfalls : shortfalls.slice(0, AT_ONCE)).map((one) => (
          <li key={one.says} className="flex flex-wrap gap-x-3">
            {one.says}
            {arranging.may && (
              <button
                type="button"
                className="quiet-link"
                disabled={arranging.busy}
                onClick={() => arranging.edit(wayOut(one))}
              >
                {one.task ? 'Leave it for another lesson' : `Allow ${one.minutes} min tonight`}
              </button>
            )}
          </li>
        ))}
      </ul>
      <p className="flex flex-wrap gap-x-4">
        {shortfalls.length > AT_ONCE && (
          <button type="button" className="quiet-link" aria-expanded={all} onClick={() => setAll(!all)}>
            {all ? 'Show fewer' : `and ${shortfalls.length - AT_ONCE} more`}
          </button>
        )}
        <button type="button" className="quiet-link" aria-expanded={asks} onClick={() => setAsks(!asks)}>
          What would help?
        </button>
        {arranging.may && left.length > 1 && (
          <button
            type="button"
            className="quiet-link"
            disabled={arranging.busy}
            onClick={() => arranging.edit(...shortfalls.filter((one) => one.task).map(wayOut))}
          >
            Leave all {left.length} for another lesson
          </button>
        )}
      </p>
      {asks && <WhatWouldHelp lesson={lesson} arrangement={arrangement} arranging={arranging} />}
    </div>
  )
}

/** Who collides, and what has been tried and gives more of it room. */
function WhatWouldHelp({ lesson, arrangement, arranging }: Omit<ByHandProps, 'start'>) {
  const found = useQuery(waysOutQuery(lesson, arrangement.version, true))
  if (!found.data) return <Opening of={[found]} what="Trying what would help" />
  const { collide, ways } = found.data
  const names = collide.map((id) => arrangement.cohorts.find((one) => one.id === id)?.name).filter(Boolean)
  return (
    <div className="mt-1 grid gap-1 border-t border-fine pt-1">
      {names.length > 1 && (
        <p>
          <b>{names.join(', ')}</b> collide: without any one of them the others have room.
        </p>
      )}
      {ways.length === 0 && <p>Nothing that was tried would help.</p>}
      <ul>
        {ways.map((way) => (
          <li key={way.says} className="flex flex-wrap gap-x-3">
            {way.says}: {way.left === 0 ? 'then everything has room' : `then ${way.left} have none`}
            {arranging.may && (
              <button
                type="button"
                className="quiet-link"
                disabled={arranging.busy}
                onClick={() => arranging.edit(...way.edits)}
              >
                Do it
              </button>
            )}
          </li>
        ))}
      </ul>
    </div>
  )
}

/** Somebody is ill, and the lesson is arranged without them; or is there after all. */
function WhoIsThere({ arrangement, arranging }: { arrangement: Arrangement; arranging: Arranging }) {
  const away = arrangement.edits.filter((edit) => edit.kind === 'teacher' && edit.who.until <= edit.who.from)
  return (
    <p className="flex flex-wrap items-center gap-x-4 gap-y-1 text-soft">
      Somebody is not there tonight:
      {arrangement.teachers.map(({ id, name, isAssistant }) => (
        <button
          key={id}
          type="button"
          className="quiet-link"
          disabled={arranging.busy}
          onClick={() =>
            arranging.edit({
              kind: 'teacher',
              who: { id, name, leadsEverything: !isAssistant, level: null, from: 0, until: 0 },
            })
          }
        >
          without {name.split(' ')[0]}
        </button>
      ))}
      {away.map(
        (edit) =>
          edit.kind === 'teacher' && (
            <button
              key={edit.who.id}
              type="button"
              className="quiet-link"
              disabled={arranging.busy}
              onClick={() => arranging.takeBack(edit)}
            >
              {edit.who.name.split(' ')[0]} is there after all
            </button>
          ),
      )}
    </p>
  )
}
