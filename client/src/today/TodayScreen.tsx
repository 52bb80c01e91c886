import { useQuery } from '@tanstack/react-query'
import { Link, Navigate } from 'react-router'
import { Opening } from '../shared/Opening'
import type { Schema } from '../api/client'
import { leftToDoQuery, todayQuery } from './data'
import { useSignedIn } from '../shared/session'
import { Ribbon } from '../ui/Ribbon'
import { Empty, Heading } from '../ui/states'
import { clockTime, longDate } from '../ui/words'
import { useOnDevice } from './use-on-device'

/** What is next and what is left to do, a sentence each, leading there. */
export function TodayScreen() {
  const { isHead, movingIn } = useSignedIn()
  const today = useQuery(todayQuery())
  const errands = useQuery(leftToDoQuery())
  useOnDevice(today.data?.today)
  if (!today.data) return <Opening of={[today]} what="Looking at the day" />
  const data = today.data
  // Before the first term there is nothing in a day but the way to it.
  if (!data.term && movingIn) return <Navigate to="/moving-in" replace />
  if (!data.term)
    return (
      <Empty next={isHead && [{ name: 'Add the next term', to: '/school?view=terms' }]}>
        No term is running or coming. {!isHead && 'Ask your head of school.'}
      </Empty>
    )
  return (
    <>
      <Heading
        title={longDate(data.today)}
        facts={
          data.week
            ? `Week ${data.week} of the ${data.term.toLowerCase()}`
            : `The ${data.term.toLowerCase()} has not begun`
        }
      />
      <div className="grid gap-8 px-5 pb-10 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
        <section aria-label="Next lessons" className="grid content-start gap-5">
          {data.next.map((lesson) => (
            <NextLesson key={lesson.classId} lesson={lesson} today={data.today} />
          ))}
          {data.next.length === 0 && (
            <p className="text-soft">
              {data.teaches
                ? 'No lessons are left in this term.'
                : isHead
                  ? 'No class meets yet.'
                  : 'You lead no class yet. Your head of school gives you one.'}
            </p>
          )}
        </section>
        <section aria-label="To do">
          <h2 className="text-lg">Left to do</h2>
          {errands.data ? (
            <Errands errands={errands.data} teaches={data.teaches} />
          ) : (
            <Opening of={[errands]} what="Looking for what is left" />
          )}
        </section>
      </div>
    </>
  )
}

const Errands = ({ errands, teaches }: { errands: Schema['LeftToDoErrand'][]; teaches: boolean }) => (
  <ul className="mt-2 grid gap-2">
    {errands.map((errand) => (
      <li key={errand.sentence + errand.classId}>
        <Link
          to={pathOf(errand)}
          className={`block rounded-r border-l-4 bg-paper px-3 py-2.5 hover:bg-white ${edge[errand.kind]}`}
        >
          {errand.sentence} <span className="text-soft">{errand.class}</span>
        </Link>
      </li>
    ))}
    {errands.length === 0 && (
      <li className="text-soft">{teaches ? 'Nothing. Every lesson is marked and everything fits.' : 'Nothing.'}</li>
    )}
  </ul>
)

const edge: Record<Schema['LeftToDoErrandKind'], string> = {
  unsafe: 'border-lacquer',
  unmarked: 'border-ochre-mark',
  unplanned: 'border-ochre-mark',
  outOfDate: 'border-ochre-mark',
  doesNotFit: 'border-ochre-mark',
  reTeach: 'border-pine',
  stuck: 'border-lacquer',
  unseen: 'border-river',
  unwritten: 'border-river',
}

function pathOf(errand: Schema['LeftToDoErrand']): string {
  if (errand.kind === 'unmarked') return `/lessons/${errand.classId}/${errand.date}/mark`
  if (errand.kind === 'unsafe') return '/people?view=safety'
  if (errand.postureId) return `/forms/postures/${errand.postureId}`
  if (errand.studentId) return `/progress/${errand.classId}?student=${errand.studentId}`
  return errand.kind === 'reTeach' ? `/progress/${errand.classId}` : `/term/${errand.classId}`
}

function NextLesson({ lesson, today }: { lesson: Schema['TodayNextLesson']; today: string }) {
  const { isHead } = useSignedIn()
  const isToday = lesson.date === today
  return (
    <article className="rounded-lg border border-line bg-paper p-5">
      <p className="text-soft">
        {isToday ? 'Today' : longDate(lesson.date)} at {clockTime(lesson.start)}, {lesson.minutes} min, {lesson.hall} ·
        lesson {lesson.number}
      </p>
      <h2 className="text-xl">
        <Link to={`/lessons/${lesson.classId}/${lesson.date}`} className="hover:underline">
          {lesson.class}
        </Link>
      </h2>
      {lesson.planned ? (
        <ul className="mt-2 grid gap-1.5">
          {lesson.teaches.map((cohort) => (
            <li key={cohort.cohort} className="grid grid-cols-[26px_120px_1fr] items-center gap-2">
              <Ribbon colour={cohort.colour} half={cohort.half} size={22} />
              <span className="font-semibold">{cohort.cohort}</span>
              <span>
                {cohort.new.length > 0 ? (
                  <span className="font-serif">{cohort.new.join('; ')}</span>
                ) : (
                  <span className="text-soft">
                    {lesson.kind === 'ordinary'
                      ? 'nothing new: run-through'
                      : lesson.kind === 'test'
                        ? 'test'
                        : 'run-through before the test'}
                  </span>
                )}
              </span>
            </li>
          ))}
        </ul>
      ) : (
        <p className="mt-2 text-ochre">
          The term is not planned yet.{' '}
          {isHead && (
            <Link to={`/term/${lesson.classId}`} className="quiet-link">
              Plan it
            </Link>
          )}
        </p>
      )}
      <p className="mt-4 flex flex-wrap gap-3">
        {isToday && lesson.planned && (
          <Link to={`/lessons/${lesson.classId}/${lesson.date}/hall`} className="button button-primary">
            Open the hall
          </Link>
        )}
        <Link
          to={`/lessons/${lesson.classId}/${lesson.date}`}
          className={`button ${isToday && lesson.planned ? '' : 'button-primary'}`}
        >
          Open the lesson
        </Link>
        {isToday && (
          <Link to={`/lessons/${lesson.classId}/${lesson.date}/mark`} className="button">
            Mark today’s lesson
          </Link>
        )}
        {lesson.held && (
          <Link to={`/lessons/${lesson.classId}/${lesson.held}/back`} className="quiet-link self-center">
            Look back on {lesson.held === today ? 'today' : longDate(lesson.held)}
          </Link>
        )}
      </p>
    </article>
  )
}
