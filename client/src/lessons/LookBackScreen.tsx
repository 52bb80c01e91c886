import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import type { Schema } from '../api/client'
import { Opening } from '../shared/Opening'
import { useSignedIn } from '../shared/session'
import { useUndo } from '../shared/undo'
import { useKeys } from '../ui/keys'
import { Kbd } from '../ui/Kbd'
import { Ribbon } from '../ui/Ribbon'
import { Empty, Heading } from '../ui/states'
import { counted, longDate, shortDay } from '../ui/words'
import { arrangementQuery, lookBackQuery, type Lesson, type RegisterItem } from './data'
import type { Arrangement } from './arranging'
import { decideFirst, MakeUp } from './BeforeClass'
import { LooksNext } from './LooksNext'
import { TeachAgain } from './TeachAgain'
import { useComingLesson } from './use-coming-lesson'
import { useRegister } from './use-register'
import { WatchInThePlan } from './WatchInThePlan'
import { WhereItGoes } from './WhereItGoes'
import { howWords, keyOf, minutesOf } from './went'

type Back = Schema['LookBackResponse']

/** After a lesson: what was taught beside what was planned, where the rest goes, what many share, who missed what, and who was not seen. One key a decision, and done. */
export function LookBackScreen() {
  const lesson = useParams() as { classId: string; date: string }
  const { isHead, person } = useSignedIn()
  const navigate = useNavigate()
  const back = useQuery(lookBackQuery(lesson))
  const arrangement = useQuery(arrangementQuery(lesson))
  const { register, data } = useRegister(lesson)
  const { last, undo } = useUndo()
  useKeys((event) => {
    if (event.key !== 'd') return false
    void navigate('/')
    return true
  })
  if (!data || !back.data) return <Opening of={[register, back]} what="Looking back" />
  if (!data.held)
    return (
      <Empty next={[{ name: 'Open the lesson', to: `/lessons/${lesson.classId}/${lesson.date}` }]}>
        This lesson has not been held yet. There is nothing to look back on.
      </Empty>
    )
  const notReached = data.cohorts.flatMap((cohort) =>
    cohort.items.filter((item) => item.taught === false).map((item) => ({ cohort, item })),
  )
  return (
    <>
      <Heading
        title={`Looking back on ${longDate(lesson.date)}`}
        facts={
          <>
            <Link to={`/lessons/${lesson.classId}/${lesson.date}`} className="quiet-link">
              {data.class}, lesson {data.number}
            </Link>{' '}
            · {counted(data.students.filter((one) => one.present).length, 'person', 'people')} here,{' '}
            {data.students.filter((one) => one.present === false).length} away
          </>
        }
      >
        <button type="button" className="button" disabled={!last} onClick={undo}>
          Undo <Kbd>z</Kbd>
        </button>
        <Link to={`/lessons/${lesson.classId}/${lesson.date}/mark`} className="button">
          Open the register
        </Link>
        <Link to="/" className="button button-primary">
          Done <Kbd>d</Kbd>
        </Link>
      </Heading>
      <div className="grid flex-1 border-t border-line lg:grid-cols-[minmax(0,1fr)_minmax(0,460px)]">
        <WhatWasTaught cohorts={data.cohorts} arrangement={arrangement.data} />
        <aside
          aria-label="What follows"
          className="grid content-start gap-5 border-line bg-plaster px-5 py-4 max-lg:order-first max-lg:border-b lg:border-l"
        >
          <WhereItGoes lesson={lesson} termId={back.data.termId} notReached={notReached} may={isHead} />
          {back.data.next && person.role !== 'assistant' && (
            <TeachAgain lesson={{ classId: lesson.classId, date: back.data.next }} />
          )}
          <TaughtAgain again={back.data.again} />
          <Missed
            missed={back.data.missed}
            lesson={lesson}
            next={person.role === 'assistant' ? null : back.data.next}
          />
          <NotSeen back={back.data} next={person.role === 'assistant' ? null : back.data.next} may={isHead} />
        </aside>
      </div>
    </>
  )
}

interface WhatWasTaughtProps {
  cohorts: Schema['RegisterCohortRegister'][]
  arrangement: Arrangement | undefined
}

function WhatWasTaught({ cohorts, arrangement }: WhatWasTaughtProps) {
  return (
    <section aria-label="What was taught" className="grid content-start gap-4 bg-paper px-5 py-4">
      {cohorts
        .map((cohort) => ({ ...cohort, own: cohort.items.filter((item) => item.how !== 'runThrough') }))
        .filter((cohort) => cohort.items.length > 0)
        .map((cohort) => (
          <section key={cohort.cohortId}>
            <h2 className="flex items-center gap-2 text-lg">
              <Ribbon colour={cohort.colour} half={cohort.half} size={24} />
              {cohort.name}
            </h2>
            <table className="w-full">
              <thead className="text-soft">
                <tr>
                  <th className="py-1 text-left font-normal">{endedWith(cohort.items)}</th>
                  <th className="w-20 text-right font-normal">planned</th>
                  <th className="w-20 text-right font-normal">took</th>
                  <th className="w-36 pl-4 text-left font-normal">
                    <span className="sr-only">Taught</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {cohort.own.map((item) => (
                  <ItemRow
                    key={keyOf(cohort.cohortId, item)}
                    item={item}
                    planned={item.planned ?? (arrangement ? minutesOf(arrangement, cohort.cohortId, item) : null)}
                  />
                ))}
                {cohort.own.length < cohort.items.length && (
                  <tr className="border-t border-fine">
                    <td colSpan={3} className="py-1">
                      {counted(cohort.items.length - cohort.own.length, 'posture')}{' '}
                      <span className="text-soft">run-through</span>
                    </td>
                    <td className="pl-4">{saidOfAll(cohort.items.filter((item) => item.how === 'runThrough'))}</td>
                  </tr>
                )}
              </tbody>
            </table>
          </section>
        ))}
      {cohorts.every((cohort) => cohort.items.length === 0) && (
        <p className="text-soft">No plan says what was to be taught, and nothing is recorded.</p>
      )}
    </section>
  )
}

/** What something took is said to half a minute. */
const SAID_TO = 0.5

function ItemRow({ item, planned }: { item: RegisterItem; planned: number | null }) {
  const longer = item.took !== null && planned !== null && item.took >= planned + SAID_TO
  return (
    <tr className="border-t border-fine">
      <td className="py-1">
        {item.name} <span className="text-soft">{howWords[item.how]}</span>
      </td>
      <td className="text-right">{planned === null ? '' : `${planned} min`}</td>
      <td className={`text-right ${longer ? 'font-bold text-ochre' : ''}`}>
        {item.took === null ? '' : `${item.took} min`}
      </td>
      <td
        className={`pl-4 ${item.taught === false ? 'font-bold text-lacquer' : item.taught ? 'text-pine' : 'text-soft'}`}
      >
        {saidOf(item.taught)}
      </td>
    </tr>
  )
}

const saidOf = (taught: boolean | null) => (taught === null ? 'not said yet' : taught ? 'taught' : 'not reached')

function saidOfAll(items: RegisterItem[]) {
  const [first, ...others] = new Set(items.map((item) => item.taught))
  return others.length === 0 && first !== undefined ? saidOf(first) : 'in part'
}

/** The last thing that was new, or else reviewed: there the cohort begins next time. */
function endedWith(items: RegisterItem[]) {
  const taught = items.filter((item) => item.taught && item.how !== 'runThrough')
  const last = taught.findLast((item) => item.how === 'introduced') ?? taught.at(-1)
  return last ? `ended with ${last.name}` : ''
}

/** What was taught again, and whether it helped. */
function TaughtAgain({ again }: Pick<Back, 'again'>) {
  if (again.length === 0) return null
  return (
    <section>
      <h2 className="text-lg">Taught again: did it help?</h2>
      <ul className="grid gap-1">
        {again.map((one) => (
          <li key={one.cohort + one.name + one.date}>
            <b>{one.name}</b>{' '}
            <span className="text-soft">
              {one.cohort}, {shortDay(one.date)}
            </span>
            <br />
            {one.words}: <span className={one.better * 2 >= one.had ? 'text-pine' : ''}>{whatBecame(one)}</span>
          </li>
        ))}
      </ul>
    </section>
  )
}

function whatBecame({ had, better, same }: Back['again'][number]) {
  const unseen = had - better - same
  return [
    `better in ${better} of ${had}`,
    ...(same > 0 ? [`the same in ${same}`] : []),
    ...(unseen > 0 ? [`not looked at in ${unseen}`] : []),
  ].join(', ')
}

function Missed({ missed, lesson, next }: { missed: Back['missed']; lesson: Lesson; next: string | null }) {
  const { classId, date } = lesson
  const [all, setAll] = useState(false)
  const tonight = missed.filter((item) => item.date === date)
  const earlier = missed.length - tonight.length
  const coming = useComingLesson(next === null ? null : { classId, date: next })
  const shown = all ? missed : tonight
  useKeys((event) => event.key === 'm' && decideFirst(shown, coming))
  if (missed.length === 0) return null
  return (
    <section>
      <h2 className="text-lg">Away when it was new {next && <Kbd>m</Kbd>}</h2>
      <ul className="grid gap-2">
        {shown.map((item) => (
          <li key={item.cohortId + item.name + item.date}>
            <b>{item.name}</b>{' '}
            <span className="text-soft">
              {item.cohort}
              {item.date !== date && `, ${shortDay(item.date)}`}
            </span>
            <br />
            {item.away.map((one) => `${one.name}${one.shownSince ? ' (shown since)' : ''}`).join(', ')}
            <br />
            <span className={item.again ? 'text-ochre' : 'text-soft'}>{waysToMakeUp(item)}</span>
            {next && <MakeUp item={item} lesson={{ classId, date: next }} coming={coming} />}
          </li>
        ))}
      </ul>
      {tonight.length === 0 && !all && <p className="text-soft">Nobody missed anything new this time.</p>}
      {earlier > 0 && (
        <button type="button" className="quiet-link mt-1" aria-expanded={all} onClick={() => setAll(!all)}>
          {all ? 'Only this lesson' : `${earlier} more from earlier lessons`}
        </button>
      )}
    </section>
  )
}

function waysToMakeUp(item: Back['missed'][number]): string {
  if (item.again) return `${item.absent} of ${item.of} were away: better introduce it again.`
  if (item.away.every((one) => one.shownSince)) return 'Made up when somebody has seen it.'
  const names = item.canShow.map(({ name }) => name)
  const ways = [
    ...(names.length > 0 ? [`before class with ${listed(names)}`] : []),
    ...(item.recording ? [`from our own recording (${item.recording})`] : []),
    'at home',
  ].join(', or ')
  return `${ways[0]!.toUpperCase()}${ways.slice(1)}; made up when somebody has seen it.`
}

const listed = (names: readonly string[]) =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).map(first).join(', ')} or ${first(names.at(-1)!)}`
const first = (name: string) => name.split(' ')[0]!

function NotSeen({ back, next, may }: { back: Back; next: string | null; may: boolean }) {
  return (
    <section>
      <h2 className="text-lg">Not seen in their last two lessons</h2>
      {back.overlooked.length === 0 ? (
        <p className="text-soft">Everybody who was there has been seen.</p>
      ) : (
        <>
          <ul>
            {back.overlooked.map((one) => (
              <li key={one.studentId}>
                <Link to={`/progress/${back.classId}?student=${one.studentId}`} className="quiet-link">
                  {one.name}
                </Link>{' '}
                <span className="text-soft">
                  {one.cohort}, {one.days === null ? 'never watched' : `last watched ${one.days} days ago`}
                </span>
              </li>
            ))}
          </ul>
          <p className="text-soft">
            {counted(back.watchMinutes, 'minute')} of watching would see{' '}
            {back.overlooked.length === 1 ? 'this one' : 'them all'}; they come first on the next watch list.
          </p>
          {next && <LooksNext lesson={{ classId: back.classId, date: next }} students={back.overlooked} />}
          {next && may && <WatchInThePlan back={back} next={next} />}
        </>
      )}
    </section>
  )
}
