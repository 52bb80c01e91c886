import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { Opening } from '../shared/Opening'
import type { Schema } from '../api/client'
import { lessonQuery } from './data'
import { EndShape } from '../shared/EndShape'
import { useSignedIn } from '../shared/session'
import { rulesQuery, useWays } from '../shared/ways'
import { readable, visibleLine } from '../ui/colour'
import { Dial } from '../ui/Dial'
import { useGrid } from '../ui/grid'
import { Ribbon } from '../ui/Ribbon'
import { Empty, Heading } from '../ui/states'
import { blockWords, clockTime, longDate, minutesOf, shortPosture } from '../ui/words'
import { LessonPrint } from './LessonPrint'
import { watchWords } from './watch-words'

type Sheet = Schema['LessonSheet']
type Cohort = Schema['LessonCohortSheet']
type Block = Schema['LessonBlockResponse']

/** One lesson: every cohort's blocks in order, true to their minutes; the chosen block in words below. */
export function LessonScreen() {
  const { classId, date } = useParams() as { classId: string; date: string }
  const { today } = useSignedIn()
  const grid = useGrid<HTMLDivElement>()
  const [chosen, setChosen] = useState<string>()
  const lesson = useQuery(lessonQuery({ classId, date }))
  if (!lesson.data) return <Opening of={[lesson]} what="Opening the lesson" />
  const sheet = lesson.data
  const all = sheet.cohorts.flatMap((cohort) =>
    cohort.blocks.map((block, at) => ({ cohort, block, id: `${cohort.cohortId} ${at}` })),
  )
  const shown =
    all.find((one) => one.id === chosen) ??
    all.find((one) => one.block.kind === 'new') ??
    all.find((one) => one.block.material.length > 0)
  return (
    <>
      <div className="screen-only">
        <Heading
          title={longDate(sheet.date)}
          facts={`${sheet.class}, lesson ${sheet.number} · ${sheet.hall}, ${clockTime(sheet.start)} to ${clockTime(sheet.end)} · ${sheet.staff.join(', ')}`}
        >
          {date <= today && (
            <Link to={`/lessons/${classId}/${date}/mark`} className="button">
              Mark this lesson
            </Link>
          )}
          <button type="button" className="button button-primary" onClick={() => window.print()}>
            Print
          </button>
        </Heading>
        {!sheet.planned ? (
          <Empty>
            This lesson is not planned.{' '}
            <Link to={`/term/${classId}`} className="quiet-link">
              Plan the term
            </Link>{' '}
            first.
          </Empty>
        ) : (
          <>
            <div
              {...grid}
              role="grid"
              aria-label="The lesson, a row a cohort"
              className="overflow-x-auto border-y border-line bg-paper"
            >
              {sheet.cohorts.map((cohort, row) => (
                <Lane key={cohort.cohortId} cohort={cohort} row={row} chosen={shown?.id} choose={setChosen} />
              ))}
            </div>
            <p className="px-5 pt-2 text-soft">
              Each row in the order it is taught, as wide as its minutes. Solid: led. Dashed: the cohort practises on
              its own; a bar at its foot is a teacher coming by. Who leads which cohort when is agreed in the hall.
            </p>
            <div className="grid gap-8 px-5 py-4 lg:grid-cols-[5fr_4fr_4fr]">
              {shown && <BlockWords cohort={shown.cohort} block={shown.block} />}
              <WatchTonight sheet={sheet} />
              <ForThesePeople sheet={sheet} />
            </div>
          </>
        )}
      </div>
      <LessonPrint sheet={sheet} />
    </>
  )
}

const times = (count: number) => (count === 1 ? 'once' : count === 2 ? 'twice' : `${count} times`)

function Lane({
  cohort,
  row,
  chosen,
  choose,
}: {
  cohort: Cohort
  row: number
  chosen?: string
  choose: (id: string) => void
}) {
  const visitSeconds = useQuery(rulesQuery()).data?.visitSeconds ?? 0
  const total = cohort.blocks.reduce((sum, block) => sum + block.seconds, 0)
  return (
    <div
      role="row"
      className="grid min-w-[900px] grid-cols-[190px_minmax(0,1fr)] border-b max-md:grid-cols-[112px_minmax(0,1fr)] border-line last:border-0"
    >
      <h2
        role="rowheader"
        className="sticky left-0 z-10 flex items-center gap-x-3 border-r border-line bg-paper px-5 py-2 text-lead max-md:flex-col max-md:items-start max-md:justify-center max-md:px-3"
      >
        <Ribbon colour={cohort.colour} half={cohort.half} size={28} />
        {cohort.name}
      </h2>
      <div role="presentation" className="flex gap-0.5 py-1.5 pr-3 pl-1">
        {cohort.blocks.length === 0 && <p className="p-2 text-soft">Nothing assigned.</p>}
        {cohort.blocks.map((block, at) => {
          const id = `${cohort.cohortId} ${at}`
          const whole = block.kind === 'warmUp' || block.kind === 'talk' || block.kind === 'settle'
          const wide = block.seconds >= 330
          const names = block.material.map((one) => one.name).join(', ')
          const what =
            block.kind === 'runThrough' ||
            block.kind === 'watch' ||
            (block.kind === 'ownPractice' && block.material.length > 1)
              ? ''
              : shortPosture(names)
          return (
            <button
              key={id}
              type="button"
              role="gridcell"
              data-grid={`${row},${at}`}
              tabIndex={-1}
              aria-selected={id === chosen}
              aria-label={`${blockWords[block.kind]}${names && `: ${names}`}, ${minutesOf(block.seconds)}, ${block.led ? 'led' : 'on their own'}`}
              title={`${blockWords[block.kind]}${names && `: ${names}`}, ${minutesOf(block.seconds)}`}
              className={`@container relative h-[calc(76rem/14)] min-w-0 overflow-hidden rounded p-1 text-left text-small leading-[1.25] ${id === chosen ? 'ring-2 ring-river' : ''} ${block.led ? '' : 'border border-dashed'}`}
              style={{
                flex: `${block.seconds / total} 1 0`,
                ...(whole
                  ? { background: '#e6dfce' }
                  : block.led
                    ? readable(cohort.colour)
                    : { borderColor: visibleLine(cohort.colour) }),
              }}
              onClick={() => choose(id)}
            >
              {/* Words too long for a narrow block run along its height. */}
              <span
                className={`block leading-tight font-bold ${wide ? 'line-clamp-2' : '@max-[72px]:mx-auto @max-[72px]:h-full @max-[72px]:max-w-full @max-[72px]:overflow-hidden @max-[72px]:tracking-tight @max-[72px]:text-ellipsis @max-[72px]:[writing-mode:vertical-rl] @max-[40px]:whitespace-nowrap @min-[72px]:line-clamp-4'}`}
              >
                {what || blockWords[block.kind]}
              </span>
              {wide && (
                <span className="block truncate">
                  {minutesOf(block.seconds)}
                  {block.visits > 0 && `, a teacher comes by ${times(block.visits)}`}
                </span>
              )}
              {Array.from({ length: block.visits }, (_, visit) => (
                <span
                  key={visit}
                  aria-hidden
                  className="absolute bottom-0 h-1.5"
                  style={{
                    left: `${((visit + 1) / (block.visits + 1)) * 100}%`,
                    width: `${(visitSeconds / block.seconds) * 100}%`,
                    background: readable(cohort.colour).background,
                  }}
                />
              ))}
            </button>
          )
        })}
      </div>
    </div>
  )
}

function BlockWords({ cohort, block }: { cohort: Cohort; block: Block }) {
  const { say } = useWays()
  const single = block.material.length === 1
  return (
    <section aria-label="The chosen block" aria-live="polite">
      <h2 className="text-lg">{single ? block.material[0]!.name : blockWords[block.kind]}</h2>
      <p className="text-soft">
        {cohort.name} · {blockWords[block.kind].toLowerCase()} · {minutesOf(block.seconds)} ·{' '}
        {block.led
          ? 'led'
          : block.visits > 0
            ? `on their own, a teacher comes by ${times(block.visits)}`
            : 'on their own'}
      </p>
      {block.kind === 'runThrough' && (
        <p className="mt-2">From the beginning of the form to what is known so far, once, without words.</p>
      )}
      {(single || block.kind === 'runThrough' || block.kind === 'watch'
        ? block.material
        : block.material.slice(-3)
      ).map((material) => (
        <div key={material.postureId + material.side} className="mt-2">
          {!single && <h3 className="text-base">{material.name}</h3>}
          <p className="border-l-4 border-lacquer pl-3">
            <b>Key point</b> {material.keyPoint}
          </p>
          {single && (
            <>
              <div className="mt-2 flex items-start justify-between gap-4">
                <ol className="grid gap-1">
                  {material.cues.map((cue, at) => (
                    <li key={at} className="grid grid-cols-[22px_1fr]">
                      <span className="font-serif font-bold">{at + 1}</span> {cue}
                    </li>
                  ))}
                </ol>
                <EndShape
                  postureId={material.postureId}
                  side={material.side}
                  mode={cohort.mode}
                  sash={cohort.colour}
                  label={`${material.name}, how it ends`}
                  className="h-28 shrink-0"
                />
                {material.facing !== null && (
                  <span className="text-center text-small text-soft">
                    <Dial facing={material.facing} said={say(material.facing)} size={38} />
                    ends here
                  </span>
                )}
              </div>
              <p className="mt-2">
                <b>Likely:</b> {material.faults.slice(0, 2).join('; ')}.
              </p>
              {material.cautions.map((caution) => (
                <p key={caution} className="mt-1 border-l-4 border-ochre-mark pl-3">
                  {caution}
                </p>
              ))}
            </>
          )}
        </div>
      ))}
    </section>
  )
}

function WatchTonight({ sheet }: { sheet: Sheet }) {
  return (
    <section>
      <h2 className="text-lg">Whom to watch</h2>
      <ul className="mt-1">
        {sheet.watch.map((watched) => (
          <li key={watched.studentId} className="grid grid-cols-[1fr_1.3fr_auto] gap-2 border-b border-fine py-1">
            <b>{watched.student}</b>
            <span>{watched.posture}</span>
            <span className="text-soft">{watchWords(watched)}</span>
          </li>
        ))}
        {sheet.watch.length === 0 && <li className="text-soft">Nobody is due a look.</li>}
      </ul>
    </section>
  )
}

function ForThesePeople({ sheet }: { sheet: Sheet }) {
  const rules = useQuery(rulesQuery()).data
  const attended = sheet.cohorts.filter((cohort) => cohort.attended)
  const alone = sheet.cohorts.filter((cohort) => cohort.tooLongAloneSeconds !== null)
  return (
    <section>
      <h2 className="text-lg">For these people</h2>
      {attended.map((cohort) => (
        <p key={cohort.cohortId} className="mt-1">
          <b>{cohort.name}</b> has somebody beside it all lesson.
        </p>
      ))}
      {alone.length > 0 && (
        <p className="mt-1">
          <b>{alone.map((cohort) => cohort.name).join('; ')}</b> {alone.length === 1 ? 'practises' : 'practise'} without
          a teacher’s eye for up to{' '}
          {Math.round(Math.max(...alone.map((cohort) => cohort.tooLongAloneSeconds ?? 0)) / 60)} min at a stretch
          {rules && `, more than ${rules.aloneSeconds / 60}`}: the teachers have no minutes for more visits. Another
          assistant would.
        </p>
      )}
      {sheet.care.map((care) => (
        <p key={care.says} className={`mt-1 ${care.open ? 'border-l-4 border-lacquer pl-2 font-semibold' : ''}`}>
          {care.says}.{' '}
          {care.open && (
            <Link to="/people?view=safety" className="quiet-link">
              Settle it
            </Link>
          )}
        </p>
      ))}
      <div className="mt-2 border-l-4 border-ochre-mark pl-3 text-small">
        {[...new Set([...sheet.cohorts.flatMap((cohort) => cohort.cautions), ...sheet.cautions])].map((caution) => (
          <p key={caution} className="mb-1">
            {caution}
          </p>
        ))}
      </div>
    </section>
  )
}
