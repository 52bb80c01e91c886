import { useQuery } from '@tanstack/react-query'
import { Link, useParams } from 'react-router'
import { Opening } from '../shared/Opening'
import type { Schema } from '../api/client'
import { yearQuery } from './data'
import { visibleLine } from '../ui/colour'
import { Ribbon } from '../ui/Ribbon'
import { Empty, Heading } from '../ui/states'
import { daysBetween } from '../ui/dates'
import { halfWords, monthYear } from '../ui/words'

const HEAD = 190
const WIDTH = 1000
const ROW = 46

const bounds: Record<Schema['StretchBound'], string> = {
  material: 'the material',
  weeks: 'the weeks asked for',
  lessons: 'the lessons asked for',
}

/** The way up the ladder from today: each level as a stretch of time, at this pace and with one lesson more a week. */
export function YearScreen() {
  const { classId } = useParams()
  const year = useQuery(yearQuery(classId!))
  if (!year.data) return <Opening of={[year]} what="Looking ahead" />
  const { data } = year
  const [slow, quick] = [data.now.at(-1), data.withOneMore.at(-1)]
  return (
    <>
      <Heading
        title={`The way to ${data.goal}`}
        facts={
          <>
            <Link to={`/term/${classId}`} className="quiet-link">
              {data.class}
            </Link>{' '}
            · {data.lessonsAWeek} lessons a week over the year, closures counted in
          </>
        }
      />
      {slow && quick ? (
        <>
          <p className="px-5 pb-3 text-base">
            Whoever begins at {data.now[0]!.name} today stands at {data.goal} in <b>{monthYear(slow.to)}</b>; with one
            lesson more a week in <b>{monthYear(quick.to)}</b>.
          </p>
          <Picture data={data} />
        </>
      ) : (
        <Empty next={[{ name: 'Open the ladder', to: '/people?view=ladder' }]}>
          The ladder needs at least two levels, and each what it studies.
        </Empty>
      )}
    </>
  )
}

function Picture({ data }: { data: Schema['YearResponse'] }) {
  const [start, end] = [data.now[0]!.from, data.now.at(-1)!.to]
  const at = (date: string) => Math.max(0, Math.min(1, daysBetween(start, date) / daysBetween(start, end))) * WIDTH
  const years = Array.from(
    { length: Number(end.slice(0, 4)) - Number(start.slice(0, 4)) },
    (_, index) => `${Number(start.slice(0, 4)) + index + 1}-01-01`,
  )
  return (
    <div className="overflow-x-auto border-y border-line bg-paper">
      <div role="table" aria-label={`The way to ${data.goal}`} style={{ minWidth: 860 }}>
        <div
          role="row"
          className="grid border-b border-line bg-plaster"
          style={{ gridTemplateColumns: `${HEAD}px 1fr` }}
        >
          <div role="columnheader" className="px-3 py-2 text-soft">
            Level
          </div>
          <div role="columnheader" className="relative h-8">
            <span className="sr-only">From when to when</span>
            {years.map((year) => (
              <span
                key={year}
                aria-hidden
                className="absolute top-2 border-l border-line pl-1 text-soft"
                style={{ left: `${(at(year) / WIDTH) * 100}%` }}
              >
                {year.slice(0, 4)}
              </span>
            ))}
          </div>
        </div>
        {data.now.map((stretch, row) => {
          const more = data.withOneMore[row]!
          const name = `${stretch.name}${stretch.half === 'none' ? '' : `, ${halfWords[stretch.half]}`}`
          return (
            <div
              key={stretch.sashId + stretch.half}
              role="row"
              className="grid border-b border-fine"
              style={{ gridTemplateColumns: `${HEAD}px 1fr` }}
            >
              <div role="rowheader" className="flex items-center gap-2.5 border-r border-line bg-plaster px-3 py-2">
                <Ribbon colour={stretch.colour} half={stretch.half} size={28} />
                <span>
                  <span className="font-serif text-lead font-bold">{name}</span>
                  <br />
                  <span className="text-small text-soft">{stretch.different} new postures</span>
                </span>
              </div>
              <div role="cell" className="relative" style={{ minHeight: ROW + 32 }}>
                <span className="sr-only">{`${name}: from ${monthYear(stretch.from)} to ${monthYear(stretch.to)}, ${stretch.lessons} lessons, decided by ${bounds[stretch.bound]}; with one lesson more a week to ${monthYear(more.to)}.`}</span>
                <svg
                  aria-hidden
                  viewBox={`0 0 ${WIDTH} ${ROW}`}
                  preserveAspectRatio="none"
                  className="absolute inset-x-0 top-2 w-full"
                  style={{ height: ROW }}
                >
                  {data.terms.map((term) => (
                    <rect
                      key={term.name}
                      x={at(term.start)}
                      width={Math.max(0, at(term.end) - at(term.start))}
                      height={ROW}
                      className="fill-floorboard"
                    />
                  ))}
                  <rect
                    x={at(stretch.from)}
                    width={Math.max(2, at(stretch.to) - at(stretch.from))}
                    y={4}
                    height={18}
                    rx={3}
                    fill={visibleLine(stretch.colour)}
                  />
                  <rect
                    x={at(more.from)}
                    width={Math.max(2, at(more.to) - at(more.from))}
                    y={26}
                    height={14}
                    rx={3}
                    fill="none"
                    stroke={visibleLine(stretch.colour)}
                    strokeWidth={1.5}
                    strokeDasharray="5 3"
                    vectorEffect="non-scaling-stroke"
                  />
                </svg>
                <span
                  aria-hidden
                  className="absolute bottom-1 text-small whitespace-nowrap text-soft"
                  style={
                    at(stretch.to) > WIDTH * 0.6
                      ? { right: `${100 - (at(stretch.to) / WIDTH) * 100}%` }
                      : { left: `${(at(stretch.from) / WIDTH) * 100}%` }
                  }
                >
                  {stretch.lessons} lessons,{' '}
                  {stretch.bound === 'material'
                    ? `${Math.round(stretch.minutes)} min of it new`
                    : `because of ${bounds[stretch.bound]}`}
                </span>
              </div>
            </div>
          )
        })}
      </div>
      <p className="px-5 py-2 text-soft">
        Filled: at this pace. Dashed: with one lesson more a week. Shaded: the terms there are.
      </p>
    </div>
  )
}
