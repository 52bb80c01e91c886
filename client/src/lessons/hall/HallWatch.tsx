import { useState } from 'react'
import type { Schema } from '../../api/client'
import { Opening } from '../../shared/Opening'
import { useSignedIn } from '../../shared/session'
import { useUndo } from '../../shared/undo'
import { WaitingNote } from '../../shared/WaitingNote'
import { Ribbon } from '../../ui/Ribbon'
import { Sole } from '../../ui/Sole'
import type { RegisterItem, RegisterStudent } from '../data'
import { useRegister } from '../use-register'
import { clockAt, type ArrangedBlock, type LessonEdit } from '../arranging'
import { WhoJoins } from '../WhoJoins'
import { watchWords, type Look } from '../watch-words'
import { blockAt } from './hall'
import { HallMarks, type Mark } from './HallMarks'

interface HallWatchProps {
  sheet: Schema['LessonSheet']
  cohort: Schema['LessonCohortSheet']
  arrangement: Schema['ArrangementResponse']
  minute: number
  /** Somebody is there who is not of this cohort. */
  join: (edit: LessonEdit, says: string) => void
}

/** What is seen in it is seen inside a run-through. */
const isRunThrough = ({ kind }: ArrangedBlock) => kind === 'runThrough' || kind === 'together'

/** Whatever was marked of somebody in this lesson, in a posture or against a principle. */
const seenTonight = ({ cells, against }: RegisterStudent) => [...cells, ...against].flatMap((one) => one.today)

/** Whom to watch in this block, longest unseen first, two taps a mark; and who is here. */
export function HallWatch({ sheet, cohort, arrangement, minute, join }: HallWatchProps) {
  const { today } = useSignedIn()
  const { register, data, entries, add, observe, withdraw, tryWay } = useRegister({
    classId: sheet.classId,
    date: sheet.date,
  })
  const { last, undo } = useUndo()
  const [open, setOpen] = useState<string>()
  const [atTheDoor, setAtTheDoor] = useState(false)
  if (!data)
    return (
      <aside className="bg-plaster p-5">
        <Opening of={[register]} what="Opening the register" />
      </aside>
    )
  const its = data.cohorts.find((one) => one.cohortId === cohort.cohortId)
  const everybody = data.students.filter((one) => one.cohortId === cohort.cohortId)
  const here = everybody.filter((one) => one.present !== false)
  const block = blockAt(arrangement, cohort.cohortId, minute)
  // Whom to look at now comes first, then whoever has their look later.
  const looks = arrangement.looks
    .filter((look) => look.cohortId === cohort.cohortId)
    .toSorted((a, b) => Number(b.end! > minute) - Number(a.end! > minute) || a.start! - b.start!)
  const due = [...looks, ...arrangement.unseen]
  const dueOf = (student: RegisterStudent) => due.findIndex((one) => one.studentId === student.studentId)
  const listed = here.toSorted((a, b) => (dueOf(a) + 1 || 99) - (dueOf(b) + 1 || 99))
  const isNow = (look: Look) => look.start !== null && look.start <= minute && look.end! > minute
  /** When their look is or was, where that is not now; and in what, where that is not what their line names. */
  const atOf = (look: Look, shown: RegisterItem) =>
    look.start === null || isNow(look)
      ? undefined
      : [clockAt(sheet.start, look.start), ...(look.posture === shown.name ? [] : [look.posture])].join(' ')
  const guestWords = ({ studentId, mode }: RegisterStudent) =>
    arrangement.joining.some((one) => one.who === studentId) && (
      <span className="block text-soft">only tonight{mode !== cohort.mode && `, ${mode}`}</span>
    )
  const seen = here.filter((one) => seenTonight(one).length > 0)
  const mayMark = sheet.date <= today
  /** What somebody is looked at in: what is led now, or else what they are on the list for. */
  const itemOf = (student: RegisterStudent) => {
    const items = its?.items ?? []
    const now = items.findIndex((item) =>
      block?.material.some((of) => of.postureId === item.postureId && of.side === item.side),
    )
    const listedFor = items.findIndex((item) => item.name === due[dueOf(student)]?.posture)
    const at = block?.material.length === 1 && now >= 0 ? now : listedFor >= 0 ? listedFor : Math.max(0, now)
    return items[at] && student.cells[at] ? { item: items[at], cell: student.cells[at] } : undefined
  }
  const mark = (
    student: RegisterStudent,
    item: RegisterItem,
    sign: Mark['sign'],
    rest: Partial<Mark>,
    says: string,
  ) => {
    observe(student, item, sign, { inRunThrough: block !== undefined && isRunThrough(block), ...rest }, says)
    setOpen(undefined)
  }
  return (
    <aside aria-label="Watching" className="flex min-h-dvh flex-col gap-3 bg-plaster p-5 max-lg:p-4">
      <div className="flex flex-wrap items-center gap-3">
        <Ribbon colour={cohort.colour} half={cohort.half} size={28} />
        <h2 className="flex-1 text-xl">
          {atTheDoor
            ? `Here: ${here.filter((one) => one.present).length} of ${everybody.length}`
            : `Watch: ${seen.length} of ${here.length} seen`}
        </h2>
        <button
          type="button"
          className="button min-h-11"
          aria-pressed={atTheDoor}
          onClick={() => setAtTheDoor(!atTheDoor)}
        >
          {atTheDoor ? 'Watch' : 'Who is here'}
        </button>
      </div>
      {arrangement.focus && (
        <p>
          Focus: <b>{arrangement.focus}</b>
        </p>
      )}
      {!mayMark && <p className="text-soft">This lesson has not been held yet: nothing is marked.</p>}
      {atTheDoor ? (
        <ul className="grid gap-2">
          {everybody.map((student) => (
            <li
              key={student.studentId}
              className="flex items-center gap-2 rounded-lg border border-line bg-paper px-3 py-2"
            >
              <span className="flex-1">
                <b className="text-lead">{student.name}</b>
                {guestWords(student)}
              </span>
              {([true, false] as const).map((present) => (
                <button
                  key={String(present)}
                  type="button"
                  aria-pressed={student.present === present}
                  disabled={!mayMark}
                  className={`button min-h-11 ${student.present === present ? 'border-pine! bg-pine-tint!' : ''}`}
                  onClick={() =>
                    add(
                      'attendance',
                      { studentId: student.studentId, present },
                      `${student.name}: ${present ? 'here' : 'away'}`,
                    )
                  }
                >
                  {present ? 'here' : 'away'}
                </button>
              ))}
            </li>
          ))}
          <li className="grid gap-2 rounded-lg border border-line bg-paper px-3 py-2 [&_button]:min-h-11 [&_input]:min-h-11">
            <b>Somebody else is here</b>
            <WhoJoins
              lesson={{ classId: sheet.classId, date: sheet.date }}
              arrangement={arrangement}
              cohortId={cohort.cohortId}
              join={join}
            />
          </li>
        </ul>
      ) : (
        <ul className="grid gap-2.5">
          {listed.map((student) => {
            const look = itemOf(student)
            if (!look) return null
            const { item, cell } = look
            const isOpen = open === student.studentId
            const why = due[dueOf(student)]
            return (
              <li
                key={student.studentId}
                className={`rounded-lg border bg-paper ${isOpen ? 'border-2 border-pine' : why && isNow(why) ? 'border-pine' : 'border-line'}`}
              >
                <button
                  type="button"
                  aria-expanded={isOpen}
                  className="flex min-h-14 w-full items-center gap-3 px-3 py-1.5 text-left"
                  onClick={() => setOpen(isOpen ? undefined : student.studentId)}
                >
                  <Sole {...cell} size={38} />
                  <span className="flex flex-1 flex-wrap items-center justify-between gap-x-3">
                    <span className="grow basis-24">
                      <b className="text-lead">{student.name}</b>
                      <span className="block text-soft">{item.name}</span>
                      {guestWords(student)}
                    </span>
                    <span className="text-soft sm:text-right">
                      {seenTonight(student).length > 0 ? (
                        <b className="text-pine">seen tonight</b>
                      ) : (
                        why && (
                          <>
                            {watchWords(why)}
                            <span className="block">{atOf(why, item)}</span>
                          </>
                        )
                      )}
                    </span>
                  </span>
                </button>
                {isOpen && mayMark && (
                  <HallMarks
                    item={item}
                    cell={cell}
                    student={student}
                    focus={arrangement.focus}
                    mark={(sign, rest, says) => mark(student, item, sign, rest, says)}
                    tryWay={(...tried) => tryWay(student, item, ...tried)}
                    withdraw={(id) => withdraw(id, `${student.name}, ${item.name}`)}
                  />
                )}
              </li>
            )
          })}
          {listed.length === 0 && <li className="text-soft">Nobody of this cohort is here.</li>}
        </ul>
      )}
      <span className="flex-1" />
      {last && (
        <button type="button" className="button min-h-11" onClick={undo}>
          Undo: {last.what}
        </button>
      )}
      <WaitingNote entries={entries} />
    </aside>
  )
}
