import { useState } from 'react'
import { Link } from 'react-router'
import type { Schema } from '../../api/client'
import { Opening } from '../../shared/Opening'
import { useSignedIn } from '../../shared/session'
import { WaitingNote } from '../../shared/WaitingNote'
import { Ribbon } from '../../ui/Ribbon'
import { counted } from '../../ui/words'
import type { RegisterItem } from '../data'
import { useRegister } from '../use-register'
import { howWords, keyOf, wentOf } from '../went'

interface HallEndProps {
  sheet: Schema['LessonSheet']
  arrangement: Schema['ArrangementResponse']
  leave: () => void
}

/** So many are named. */
const NAMED = 8

/** What was taught and how long it took, as the lesson went: one look, a change where it was otherwise, and done. */
export function HallEnd({ sheet, arrangement, leave }: HallEndProps) {
  const { person, today } = useSignedIn()
  const { register, data, entries, add } = useRegister({ classId: sheet.classId, date: sheet.date })
  const [changed, setChanged] = useState<Record<string, { taught: boolean; minutes: number | null }>>({})
  if (!data)
    return (
      <div className="p-5">
        <Opening of={[register]} what="Opening the register" />
      </div>
    )
  const saidOf = (cohortId: string, item: RegisterItem) =>
    changed[keyOf(cohortId, item)] ??
    (item.taught === null ? wentOf(arrangement, cohortId, item) : { taught: item.taught, minutes: item.took })
  const open = data.cohorts.flatMap((one) =>
    one.items
      .filter((item) => item.taught === null || changed[keyOf(one.cohortId, item)] !== undefined)
      .map((item) => ({ cohortId: one.cohortId, item })),
  )
  const away = data.students.filter((one) => one.present === false)
  const unseen = data.students.filter(
    (one) => one.present !== false && one.cells.every((cell) => cell.today.length === 0),
  )
  const may = person.role !== 'assistant' && sheet.date <= today
  const confirm = () => {
    for (const { cohortId, item } of open) {
      const { taught, minutes } = saidOf(cohortId, item)
      add(
        'taught',
        {
          cohortId,
          postureId: item.postureId,
          side: item.side,
          kind: item.kind,
          from: item.from,
          how: item.how,
          taught,
          minutes: taught ? minutes : null,
        },
        `${item.name}: ${taught ? 'taught' : 'not taught'}`,
      )
    }
    setChanged({})
  }
  return (
    <section
      aria-label="The end of the lesson"
      className="flex min-h-dvh flex-1 flex-col gap-4 bg-plaster p-6 max-md:p-4"
    >
      <h1 className="text-title">How it went</h1>
      <p className="text-soft">
        {counted(away.length, 'person', 'people')} away.{' '}
        {unseen.length === 0
          ? 'Everybody was seen.'
          : `Not seen tonight: ${unseen
              .slice(0, NAMED)
              .map((one) => one.name)
              .join(', ')}${unseen.length > NAMED ? ` and ${unseen.length - NAMED} more` : ''}`}
      </p>
      {arrangement.shortfalls.length > 0 && (
        <ul className="border-l-4 border-ochre-mark pl-3">
          {arrangement.shortfalls.map((one) => (
            <li key={one.says}>{one.says}</li>
          ))}
        </ul>
      )}
      <div className="grid gap-x-8 gap-y-4 xl:grid-cols-2">
        {data.cohorts
          .filter((one) => one.items.length > 0)
          .map((one) => (
            <section key={one.cohortId}>
              <h2 className="flex items-center gap-2 text-lg">
                <Ribbon colour={one.colour} half={one.half} size={24} />
                {one.name}
              </h2>
              <ul>
                {one.items
                  .filter((item) => item.how !== 'runThrough' || item.taught === null)
                  .map((item) => {
                    const key = keyOf(one.cohortId, item)
                    const said = saidOf(one.cohortId, item)
                    const say = (to: Partial<typeof said>) => setChanged({ ...changed, [key]: { ...said, ...to } })
                    return (
                      <li key={key} className="flex min-h-12 flex-wrap items-center gap-2 border-b border-fine py-1">
                        <span className="flex-1">
                          {item.name} <span className="text-soft">{howWords[item.how]}</span>
                        </span>
                        {said.taught && said.minutes !== null && (
                          <span className="flex items-center gap-1">
                            <button
                              type="button"
                              className="button min-h-11 min-w-11"
                              aria-label={`${item.name}, a minute less`}
                              disabled={!may || said.minutes <= 1}
                              onClick={() => say({ minutes: said.minutes! - 1 })}
                            >
                              −
                            </button>
                            <span className="w-14 text-center">{said.minutes} min</span>
                            <button
                              type="button"
                              className="button min-h-11 min-w-11"
                              aria-label={`${item.name}, a minute more`}
                              disabled={!may}
                              onClick={() => say({ minutes: said.minutes! + 1 })}
                            >
                              +
                            </button>
                          </span>
                        )}
                        <button
                          type="button"
                          aria-pressed={said.taught}
                          className={`button min-h-11 w-32 ${said.taught ? 'border-pine! bg-pine-tint!' : ''}`}
                          disabled={!may}
                          onClick={() => say({ taught: !said.taught })}
                        >
                          {said.taught ? 'taught' : 'not taught'}
                        </button>
                      </li>
                    )
                  })}
              </ul>
            </section>
          ))}
      </div>
      <div className="sticky bottom-0 flex flex-wrap items-center gap-3 border-t border-line bg-plaster py-3 max-lg:bottom-14">
        {may && (
          <button
            type="button"
            className="button button-primary min-h-12"
            disabled={open.length === 0}
            onClick={confirm}
          >
            {open.length === 0 ? 'It is recorded' : 'That is how it went'}
          </button>
        )}
        <button type="button" className="button min-h-12" onClick={leave}>
          Back to the hall
        </button>
        <Link to={`/lessons/${sheet.classId}/${sheet.date}/mark`} className="quiet-link">
          Open the register
        </Link>
        <Link to={`/lessons/${sheet.classId}/${sheet.date}/back`} className="quiet-link">
          Look back
        </Link>
      </div>
      <WaitingNote entries={entries} />
    </section>
  )
}
