import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import { useSignedIn } from '../shared/session'
import { leave } from '../shared/leaving'
import { useOpened } from '../shared/opened'
import { Ribbon } from '../ui/Ribbon'
import { Empty } from '../ui/states'
import { clockTime, dayMonth, people, shortDay, weekdayWords } from '../ui/words'
import { ClassPanel } from './ClassPanel'
import { CohortPanel } from './CohortPanel'
import { assignmentsQuery, purposeWords, type Cohort, type SchoolClass, type School } from './data'
import { TemplatesPanel } from './TemplatesPanel'

type Chosen =
  { kind: 'class' | 'cohort'; id: string } | { kind: 'new class' | 'templates' } | { kind: 'new cohort'; id: string }

/** Classes with their cohorts, and what each cohort has been given. */
export function ClassesView({ school }: { school: School }) {
  const { isHead } = useSignedIn()
  const { opened: chosen, open, close } = useOpened<Chosen>()
  const choose = (next: Chosen) => leave(() => open(next))
  const id = chosen && 'id' in chosen ? chosen.id : undefined
  const schoolClass = school.classes.find((one) => one.id === id)
  const cohort =
    chosen?.kind === 'cohort'
      ? school.classes
          .flatMap((one) => one.cohorts.map((group) => ({ group, schoolClass: one })))
          .find(({ group }) => group.id === id)
      : undefined
  return (
    <div className={`grid flex-1 border-t border-line ${chosen ? 'lg:grid-cols-[minmax(0,1fr)_400px]' : ''}`}>
      <div className="min-w-0">
        {isHead && (
          <div className="flex flex-wrap justify-end gap-3 border-b border-line px-5 py-3">
            <button type="button" className="button" onClick={() => choose({ kind: 'templates' })}>
              Assign to all at once
            </button>
            <button type="button" className="button" onClick={() => choose({ kind: 'new class' })}>
              Add a class
            </button>
          </div>
        )}
        {school.classes.length === 0 && (
          <Empty>
            {!isHead ? (
              'You do not teach a class yet. Ask your head of school.'
            ) : (
              <>
                <p>
                  There is no class yet. {school.halls.length === 0 && 'It needs a hall to meet in. '}
                  {school.sashes.length === 0 && 'With a sash ladder its cohorts can be made from sashes.'}
                </p>
                <p className="mt-3 flex flex-wrap gap-3">
                  {school.halls.length === 0 ? (
                    <Link className="button button-primary" to="/people?view=halls">
                      Add a hall
                    </Link>
                  ) : (
                    <button
                      type="button"
                      className="button button-primary"
                      onClick={() => choose({ kind: 'new class' })}
                    >
                      Add the first class
                    </button>
                  )}
                  {school.sashes.length === 0 && (
                    <Link className="button" to="/people?view=ladder">
                      Write the sash ladder
                    </Link>
                  )}
                </p>
              </>
            )}
          </Empty>
        )}
        {school.classes.map((one) => (
          <ClassSection key={one.id} schoolClass={one} school={school} chosen={id} choose={choose} />
        ))}
      </div>
      {chosen?.kind === 'new class' && <ClassPanel key="new" school={school} close={close} />}
      {chosen?.kind === 'class' && schoolClass && (
        <ClassPanel key={schoolClass.id} schoolClass={schoolClass} school={school} close={close} />
      )}
      {chosen?.kind === 'new cohort' && schoolClass && (
        <CohortPanel key={`new ${schoolClass.id}`} schoolClass={schoolClass} school={school} close={close} />
      )}
      {cohort && (
        <CohortPanel
          key={cohort.group.id}
          cohort={cohort.group}
          schoolClass={cohort.schoolClass}
          school={school}
          close={close}
        />
      )}
      {chosen?.kind === 'templates' && <TemplatesPanel school={school} close={close} />}
    </div>
  )
}

function ClassSection({
  schoolClass,
  school,
  chosen,
  choose,
}: {
  schoolClass: SchoolClass
  school: School
  chosen: string | undefined
  choose: (chosen: Chosen) => void
}) {
  const { isHead } = useSignedIn()
  const hall = school.halls.find((one) => one.id === schoolClass.hallId)
  const name = (id: string | null) => school.staff.find((one) => one.id === id)?.name ?? 'nobody'
  return (
    <section className="border-b border-line px-5 py-4">
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <h2 className="text-lg">{schoolClass.name}</h2>
        {isHead && (
          <span className="flex gap-5">
            <button
              type="button"
              className="quiet-link"
              aria-label={`Add a cohort to ${schoolClass.name}`}
              onClick={() => choose({ kind: 'new cohort', id: schoolClass.id })}
            >
              Add a cohort
            </button>
            <button
              type="button"
              className="quiet-link"
              aria-label={`Change ${schoolClass.name}`}
              onClick={() => choose({ kind: 'class', id: schoolClass.id })}
            >
              Change
            </button>
          </span>
        )}
      </div>
      <p className="text-soft">
        {weekdayWords[schoolClass.weekday]} {clockTime(schoolClass.start)}, {schoolClass.minutes} min, {hall?.name} (
        {hall?.width} × {hall?.depth} m) · {schoolClass.staffIds.map(name).join(', ')}
      </p>
      {schoolClass.substitutes.map((one) => (
        <p key={one.date + one.awayId} className="text-soft">
          {shortDay(one.date)}: {name(one.awayId)} is away,{' '}
          {one.insteadId ? `${name(one.insteadId)} teaches` : 'nobody stands in'}
        </p>
      ))}
      {schoolClass.cohorts.length === 0 ? (
        <p className="mt-3 flex flex-wrap items-center gap-3 text-soft">
          No cohort yet: who works on the same material in the same mode?
          {isHead && (
            <button type="button" className="button" onClick={() => choose({ kind: 'new cohort', id: schoolClass.id })}>
              Add the first cohort
            </button>
          )}
        </p>
      ) : (
        <div className="mt-3 overflow-x-auto">
          <table className="w-full min-w-[46rem] border-collapse bg-paper">
            <thead className="text-left text-soft">
              <tr className="border-b border-line">
                {['Cohort', 'People', 'Mode', 'Segments', ''].map((head) => (
                  <th key={head} scope="col" className="px-3 py-1.5 font-semibold">
                    {head}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {schoolClass.cohorts.map((group) => (
                <CohortRow key={group.id} group={group} isChosen={group.id === chosen} choose={choose} />
              ))}
            </tbody>
          </table>
        </div>
      )}
    </section>
  )
}

function CohortRow({
  group,
  isChosen,
  choose,
}: {
  group: Cohort
  isChosen: boolean
  choose: (chosen: Chosen) => void
}) {
  const { isHead } = useSignedIn()
  const given = useQuery(assignmentsQuery())
  const segments = given.data?.find((its) => its.cohortId === group.id)?.segments ?? []
  return (
    <tr className={`border-b border-fine align-top ${isChosen ? 'bg-pine-tint' : 'bg-paper'}`}>
      <th scope="row" className="sticky left-0 bg-inherit px-3 py-2 text-left">
        <span className="flex items-center gap-2.5 font-serif text-base whitespace-nowrap">
          <Ribbon colour={group.colour} half={group.half} size={26} />
          {group.name}
        </span>
      </th>
      <td className="px-3 py-2.5 whitespace-nowrap">{people(group.students)}</td>
      <td className="px-3 py-2.5">
        {group.mode}
        {group.beginners && ', beginners'}
        {group.mustBeAttended && <span className="block text-soft">never left alone</span>}
      </td>
      <td className="px-3 py-2.5">
        {segments.map(({ segment, form, from, to }) => (
          <span key={segment.id} className="block">
            <span className="font-serif font-semibold">{from === to ? from : `${from} to ${to}`}</span>{' '}
            <span className="text-soft">
              {form}, {purposeWords[segment.purpose]}
              {segment.purpose !== 'maintain' && ` by ${dayMonth(segment.target)}`}
              {segment.leftOut.length > 0 && `, ${segment.leftOut.length} left out`}
            </span>
          </span>
        ))}
        {given.data &&
          segments.length === 0 &&
          (isHead ? (
            <Link to={`/people?view=assign&cohort=${group.id}`} className="quiet-link">
              Assign a segment
            </Link>
          ) : (
            <span className="text-ochre">nothing yet</span>
          ))}
      </td>
      <td className="px-3 py-2.5 text-right whitespace-nowrap">
        <Link
          to={`/people?view=coverage&cohort=${group.id}`}
          className="quiet-link"
          aria-label={`Coverage of ${group.name}`}
        >
          Coverage
        </Link>
        {isHead && (
          <>
            <Link
              to={`/progress/taken-over/${group.id}`}
              className="quiet-link ml-4"
              aria-label={`What ${group.name} came with`}
            >
              Came with
            </Link>
            <Link
              to={`/people?view=assign&cohort=${group.id}`}
              className="quiet-link ml-4"
              aria-label={`Assign to ${group.name}`}
            >
              Assign
            </Link>
            <button
              type="button"
              className="quiet-link ml-4"
              aria-label={`Change ${group.name}`}
              onClick={() => choose({ kind: 'cohort', id: group.id })}
            >
              Change
            </button>
          </>
        )}
      </td>
    </tr>
  )
}
