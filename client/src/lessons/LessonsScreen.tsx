import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import { Opening } from '../shared/Opening'
import type { Schema } from '../api/client'
import { arrangementQuery, lessonQuery, lessonsQuery } from './data'
import { SmallArrangement } from './SmallArrangement'
import { useSignedIn } from '../shared/session'
import { Empty, Heading } from '../ui/states'
import { clockTime, longDate } from '../ui/words'

/** Every lesson of the term, the next ones first. */
export function LessonsScreen() {
  const { today, isHead } = useSignedIn()
  const lessons = useQuery(lessonsQuery())
  if (!lessons.data) return <Opening of={[lessons]} what="Opening the lessons" />
  const coming = lessons.data.filter((lesson) => lesson.date >= today)
  const past = lessons.data.filter((lesson) => lesson.date < today).toReversed()
  return (
    <>
      <Heading title="Lessons" facts={`${coming.length} to come, ${past.length} held`} />
      {lessons.data.length === 0 && (
        <Empty
          next={
            isHead && [
              { name: 'See the terms', to: '/school?view=terms' },
              { name: 'See the classes', to: '/people' },
            ]
          }
        >
          There are no lessons: no term is running, or no class meets in it.
        </Empty>
      )}
      <div className="grid gap-8 px-5 pb-10 lg:grid-cols-2">
        <LessonList title="To come" lessons={coming} />
        <LessonList title="Held" lessons={past} />
      </div>
    </>
  )
}

/** So many days ahead a lesson is shown as it is arranged; it may still change much after that. */
const DAYS = 15

/** Pixels of a lane, and of all of them. */
const LANE = 12
const TALL = 56

/** A coming lesson as a small picture of its arrangement. */
function Glance({ lesson: { classId, date, class: name } }: { lesson: Schema['LessonItem'] }) {
  const { today } = useSignedIn()
  const near = date >= today && Date.parse(date) - Date.parse(today) < DAYS * 24 * 3600 * 1000
  const arrangement = useQuery(arrangementQuery({ classId, date }, near)).data
  const cohorts = useQuery({ ...lessonQuery({ classId, date }), enabled: near }).data?.cohorts
  if (!near) return null
  return (
    <span className="h-14 w-40 shrink-0 self-center max-md:w-24">
      {arrangement && cohorts && (
        <SmallArrangement
          arrangement={arrangement}
          cohorts={cohorts}
          label={`${name}, how it is arranged: ${arrangement.cohorts.length} cohorts`}
          className="w-full rounded border border-line bg-white"
          height={Math.min(TALL, arrangement.cohorts.length * LANE)}
        />
      )}
    </span>
  )
}

const kindWords: Record<Schema['LessonKind'], string> = {
  ordinary: '',
  consolidation: 'run-through before the test',
  test: 'test',
}

function LessonList({ title, lessons }: { title: string; lessons: Schema['LessonItem'][] }) {
  if (lessons.length === 0) return null
  return (
    <section>
      <h2 className="text-lg">{title}</h2>
      <ul className="mt-2 border-t border-line">
        {lessons.map((lesson) => (
          <li
            key={lesson.classId + lesson.date}
            className="flex items-start justify-between gap-4 border-b border-line bg-paper px-3 py-2"
          >
            <Glance lesson={lesson} />
            <span className="flex-1">
              <Link to={`/lessons/${lesson.classId}/${lesson.date}`} className="font-semibold hover:underline">
                {longDate(lesson.date)}, {clockTime(lesson.start)}
              </Link>{' '}
              <span className="text-soft">
                {lesson.class} · lesson {lesson.number}
              </span>
              <br />
              <span className="text-soft">{lesson.new.join(' · ') || kindWords[lesson.kind] || 'nothing new'}</span>
            </span>
            {lesson.past && lesson.marked && (
              <Link to={`/lessons/${lesson.classId}/${lesson.date}/back`} className="quiet-link shrink-0">
                Look back
              </Link>
            )}
            {lesson.past && (
              <Link
                to={`/lessons/${lesson.classId}/${lesson.date}/mark`}
                className={`quiet-link shrink-0 ${lesson.marked ? '' : 'text-ochre!'}`}
              >
                {lesson.marked ? 'Register' : 'Not marked yet'}
              </Link>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}
