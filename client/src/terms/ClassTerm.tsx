import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import type { Schema } from '../api/client'
import { useSignedIn } from '../shared/session'
import { leave } from '../shared/leaving'
import { Opening } from '../shared/Opening'
import { useKeys } from '../ui/keys'
import { Heading, Refusal } from '../ui/states'
import { Weave } from '../ui/Weave'
import { counted, dayMonth, shortDay } from '../ui/words'
import { ChangesList } from './ChangesList'
import { DraftBar } from './DraftBar'
import { FitPanel } from './FitPanel'
import { LessonPanel } from './LessonPanel'
import { ChipPanel, LeftOverList, RefusedList } from './PlanDetails'
import { NotPlanned } from './NotPlanned'
import { TakeAway } from './TakeAway'
import { chipInFocus, menuOf, termBoard } from './term-board'
import { mayUndo, type PlanShown, type Step } from './data'
import { useMoving, usePlan } from './use-plan'
import { VersionsPanel } from './VersionsPanel'

interface ClassTermProps {
  term: Schema['TermResponse']
  schoolClass: Schema['PeopleClassResponse']
  school: Schema['PeopleResponse']
  /** The only class on the screen: then its heading is the screen's. */
  alone: boolean
  whole: boolean
  setWhole: (whole: boolean) => void
  children: React.ReactNode
}

type Open = { chip: string } | { lesson: string } | 'more' | 'versions' | 'fit' | 'take'

const numberIn = (search: URLSearchParams, name: 'version' | 'beside') =>
  search.has(name) ? { [name]: Number(search.get(name)) } : {}

/** The term of one class, and everything a head does to it in place. */
export function ClassTerm({ term, schoolClass, school, alone, whole, setWhole, children }: ClassTermProps) {
  const { isHead, person, today } = useSignedIn()
  const [search, setSearch] = useSearchParams()
  const [remedy, setRemedy] = useState<{ id: string; says: string }>()
  const shown: PlanShown = remedy
    ? { remedy }
    : alone
      ? {
          ...(search.has('announced') && { announced: true }),
          ...numberIn(search, 'version'),
          ...numberIn(search, 'beside'),
        }
      : {}
  const path = { termId: term.id, classId: schoolClass.id }
  const { plan, step, announce, remedy: takeRemedy } = usePlan(path, shown)
  const [open, setPanel] = useState<Open | undefined>(() => {
    const lesson = search.get('lesson')
    return lesson && alone ? { lesson } : undefined
  })
  const setOpen = (next: Open | undefined) => leave(() => setPanel(next))
  const isNow = !shown.announced && shown.version === undefined && !remedy
  const take = (what: Step) =>
    isHead && isNow && !step.isPending && step.mutate({ path, step: what, draft: plan.data?.draft?.id })
  const moving = useMoving(path, (chip, date) => take({ kind: 'pin', chip, date }))

  const data = plan.data
  const found =
    typeof open === 'object' && 'chip' in open
      ? data?.rows.flatMap((row) => row.chips.map((one) => ({ row, one }))).find(({ one }) => one.id === open.chip)
      : undefined
  const lesson =
    typeof open === 'object' && 'lesson' in open ? data?.lessons.find((one) => one.date === open.lesson) : undefined
  useKeys((event) => {
    if (event.key === 'z' && data && mayUndo(data) && isNow && alone) take({ kind: 'undo' })
    else if (event.key === 'Z' && data?.redo && isNow && alone) take({ kind: 'redo' })
    else if (event.key === 'p' && isHead && isNow && (found ?? chipInFocus(data))) {
      const { one } = (chipInFocus(data) ?? found)!
      if (one.taught) return false
      take({ kind: 'pin', chip: one.id, date: one.pinned ? null : one.date })
    } else return false
    return true
  })

  if (!data) return <Opening of={[plan]} what="Opening the term" />

  const lessons = data.lessons.filter((one) => one.number !== null)
  const left = data.rows.flatMap((row) => row.leftOver.map((item) => ({ row, item })))
  const refused = data.rows.flatMap((row) => row.refused.map((item) => ({ row, item })))
  const next = lessons.find((one) => !one.held)
  const show = (which: PlanShown) => {
    setOpen(undefined)
    setRemedy(which.remedy)
    if (which.remedy) return
    const { version, beside } = which
    setSearch(
      which.announced
        ? { announced: '' }
        : version === undefined
          ? {}
          : { version: String(version), ...(beside !== undefined && { beside: String(beside) }) },
      { replace: true },
    )
  }
  const canAnnounce = isHead && data.draft !== null && !data.outOfDate && isNow
  const error = step.error ?? announce.error ?? takeRemedy.error ?? moving.refused
  return (
    <>
      <Heading
        title={alone ? `${data.term} · ${data.class}` : data.class}
        facts={`${counted(lessons.length, 'lesson')}, ${dayMonth(term.start)} to ${dayMonth(term.end)} · ${data.lessons.length - lessons.length} closed · ${lessons.filter((one) => one.held).length} held`}
      >
        {left.length > 0 && (
          <a href={`#left-over-${schoolClass.id}`} className="font-bold text-ochre underline underline-offset-3">
            {left.length === 1 ? '1 thing does not fit' : `${left.length} things do not fit`}
          </a>
        )}
        {data.outOfDate && isNow && <span className="font-bold text-ochre">Changed since it was planned</span>}
        {children}
        {isHead && isNow && !canAnnounce && (
          <button
            type="button"
            className="button button-primary"
            onClick={() => take({ kind: 'plan' })}
            disabled={step.isPending}
          >
            {step.isPending
              ? 'Planning…'
              : data.plannedAt
                ? `Plan the term from ${next ? shortDay(next.date) : 'here'}`
                : 'Plan the term'}
          </button>
        )}
        {canAnnounce && (
          <button
            type="button"
            className="button button-primary"
            onClick={() => announce.mutate({ path, draft: data.draft!.id })}
            disabled={announce.isPending}
          >
            Announce this plan
          </button>
        )}
      </Heading>
      {error && (
        <div className="px-5 pb-3">
          <Refusal error={error} />
        </div>
      )}
      {isHead && (
        <DraftBar
          plan={data}
          shown={shown}
          waiting={plan.isPlaceholderData}
          busy={step.isPending || takeRemedy.isPending}
          show={show}
          undo={() => take({ kind: 'undo' })}
          redo={() => take({ kind: 'redo' })}
          discard={() => take({ kind: 'discard' })}
          take={(id) => takeRemedy.mutate({ path, id }, { onSuccess: () => setRemedy(undefined) })}
        />
      )}
      <RefusedList refused={refused} />
      {!data.plannedAt ? (
        <NotPlanned
          assigned={data.rows.some((row) => row.assigned)}
          firstCohort={schoolClass.cohorts[0]}
          planning={step.isPending}
          plan={isHead ? () => take({ kind: 'plan' }) : undefined}
        />
      ) : (
        <div className={`grid flex-1 ${open ? 'xl:grid-cols-[minmax(0,1fr)_320px]' : ''}`}>
          <div className="min-w-0">
            <Weave
              {...termBoard(data, next?.date, today, whole)}
              whole={whole}
              corner={
                <button
                  type="button"
                  className="quiet-link text-small"
                  aria-pressed={whole}
                  onClick={() => setWhole(!whole)}
                >
                  {whole ? 'Wide enough to read' : 'Whole term at once'}
                </button>
              }
              chosen={found?.one.id}
              onChoose={(chip) => setOpen(found?.one.id === chip ? undefined : { chip })}
              chosenColumn={lesson?.date}
              onColumn={
                isHead && isNow ? (date) => setOpen(lesson?.date === date ? undefined : { lesson: date }) : undefined
              }
              move={isHead && isNow ? moving : undefined}
              menu={(chip) => menuOf(data, chip, isHead && isNow ? take : undefined, () => setOpen({ chip }))}
            />
            <p className="flex flex-wrap gap-x-5 px-5 pt-3 text-soft">
              {isHead && isNow && (
                <span>
                  Drag a posture to another lesson, choose it for its place and a move without dragging, or use Shift
                  and an arrow key. Choose a date to close, move or change its lesson.
                </span>
              )}
              <button type="button" className="quiet-link" onClick={() => setOpen('take')}>
                Print and take away
              </button>
              {person.role !== 'assistant' && (
                <>
                  <Link to="/term/short-stay" className="quiet-link">
                    A visitor for a few lessons
                  </Link>
                  <Link to={`/term/${schoolClass.id}/year`} className="quiet-link">
                    The years ahead
                  </Link>
                </>
              )}
              {isHead && isNow && (
                <>
                  {canAnnounce && (
                    <button
                      type="button"
                      className="quiet-link"
                      disabled={step.isPending}
                      onClick={() => take({ kind: 'plan' })}
                    >
                      Plan again
                    </button>
                  )}
                  <button type="button" className="quiet-link" onClick={() => setOpen('more')}>
                    Add a lesson
                  </button>
                  {(data.announced ?? 0) > 1 && (
                    <button type="button" className="quiet-link" onClick={() => setOpen('versions')}>
                      Earlier plans
                    </button>
                  )}
                </>
              )}
            </p>
            <LeftOverList
              id={`left-over-${schoolClass.id}`}
              left={left}
              fit={isHead && isNow && left.some(({ item }) => item.minutes > 0) ? () => setOpen('fit') : undefined}
            />
            <ChangesList
              changes={data.changes}
              against={remedy ? 'the plan on the table' : 'the announced plan'}
              busy={step.isPending}
              keep={isNow ? (cohortId) => take({ kind: 'keep', cohortId }) : undefined}
            />
          </div>
          {found && (
            <ChipPanel
              cohort={found.row}
              chip={found.one}
              close={() => setOpen(undefined)}
              lessons={lessons.filter((one) => !one.held)}
              move={
                isHead && isNow && !found.one.taught
                  ? (date) => take({ kind: 'pin', chip: found.one.id, date })
                  : undefined
              }
              fix={
                isHead && isNow && !found.one.taught
                  ? () => take({ kind: 'pin', chip: found.one.id, date: found.one.pinned ? null : found.one.date })
                  : undefined
              }
            />
          )}
          {(lesson ?? (open === 'more' ? null : undefined)) !== undefined && (
            <LessonPanel
              key={lesson?.date ?? 'more'}
              term={term}
              schoolClass={schoolClass}
              school={school}
              lesson={lesson ?? null}
              close={() => setOpen(undefined)}
              saved={() => {
                setPanel(undefined)
                take({ kind: 'plan' })
              }}
            />
          )}
          {open === 'fit' && (
            <FitPanel
              path={path}
              at={data.plannedAt}
              look={({ id, says }) => show({ remedy: { id, says } })}
              close={() => setOpen(undefined)}
            />
          )}
          {open === 'take' && <TakeAway plan={data} close={() => setOpen(undefined)} />}
          {open === 'versions' && (
            <VersionsPanel
              path={path}
              show={(version, beside) => show({ version, beside })}
              close={() => setOpen(undefined)}
            />
          )}
        </div>
      )}
    </>
  )
}
