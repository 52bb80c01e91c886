import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schema } from '../api/client'
import { useSignedIn } from '../app/session'
import { useKeys } from '../ui/keys'
import { Ribbon } from '../ui/Ribbon'
import { Empty } from '../ui/states'
import { clockTime, dayMonth, people, weekdayWords } from '../ui/words'
import { AssignPanel } from './AssignPanel'
import { ClassPanel } from './ClassPanel'

/** Classes with their cohorts, and what each cohort has been given. */
export function ClassesView({ school }: { school: Schema['PeopleResponse'] }) {
  const { isHead } = useSignedIn()
  const queries = useQueryClient()
  const [chosen, setChosen] = useState<{ kind: 'class' | 'cohort'; id: string }>()
  useKeys((event) => {
    if (event.key !== 'Escape' || !chosen) return false
    setChosen(undefined)
    return true
  })
  if (school.classes.length === 0) return <Empty>{isHead ? 'There is no class yet.' : 'You do not teach a class yet. Ask your head of school.'}</Empty>
  const meeting = school.classes.find((one) => chosen?.kind === 'class' && one.id === chosen.id)
  const cohort = school.classes.flatMap((one) => one.cohorts).find((one) => chosen?.kind === 'cohort' && one.id === chosen.id)
  const hall = (id: string) => school.halls.find((one) => one.id === id)
  const staff = (ids: string[]) => ids.map((id) => school.staff.find((one) => one.id === id)?.name).join(', ')
  const saved = () => {
    void queries.invalidateQueries({ queryKey: ['people'] })
    void queries.invalidateQueries({ queryKey: ['plan'] })
    void queries.invalidateQueries({ queryKey: ['today'] })
  }
  return (
    <div className={`grid flex-1 border-t border-line ${chosen ? 'lg:grid-cols-[minmax(0,1fr)_420px]' : ''}`}>
      <div className="min-w-0">
        {school.classes.map((one) => (
          <section key={one.id} className="border-b border-line px-5 py-4">
            <div className="flex flex-wrap items-baseline justify-between gap-3">
              <h2 className="text-lg">{one.name}</h2>
              {isHead && (
                <button type="button" className="quiet-link" aria-label={`Change ${one.name}`} onClick={() => setChosen({ kind: 'class', id: one.id })}>
                  Change
                </button>
              )}
            </div>
            <p className="text-soft">
              {weekdayWords[one.weekday]} {clockTime(one.start)}, {one.minutes} min, {hall(one.hallId)?.name} ({hall(one.hallId)?.width} × {hall(one.hallId)?.depth} m) · {staff(one.staffIds)}
            </p>
            <table className="mt-3 w-full border-collapse bg-paper">
              <thead className="text-left text-soft">
                <tr className="border-b border-line">
                  {['Cohort', 'People', 'Mode', 'Segment', 'To be met by', ''].map((head) => (
                    <th key={head} scope="col" className="px-3 py-1.5 font-semibold">
                      {head}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {one.cohorts.map((group) => (
                  <tr key={group.id} className={`border-b border-fine ${group.id === chosen?.id ? 'bg-pine-tint' : ''}`}>
                    <th scope="row" className="px-3 py-2 text-left">
                      <span className="flex items-center gap-2.5 font-serif text-base">
                        <Ribbon colour={group.colour} half={group.half} size={26} />
                        {group.name}
                      </span>
                    </th>
                    <td className="px-3 py-2 whitespace-nowrap">{people(group.students)}</td>
                    <td className="px-3 py-2">
                      {group.mode}
                      {group.beginners && ', beginners'}
                    </td>
                    <td className="px-3 py-2">
                      {group.assignment ? (
                        <>
                          <span className="font-serif font-semibold">
                            {group.assignment.from} to {group.assignment.to}
                          </span>{' '}
                          <span className="text-soft">{group.assignment.form}</span>
                        </>
                      ) : (
                        <span className="text-ochre">nothing yet</span>
                      )}
                    </td>
                    <td className="px-3 py-2 whitespace-nowrap">{group.assignment && dayMonth(group.assignment.target)}</td>
                    <td className="px-3 py-2 text-right">
                      {isHead && (
                        <button type="button" className="quiet-link" aria-label={`Assign to ${group.name}`} onClick={() => setChosen({ kind: 'cohort', id: group.id })}>
                          Assign
                        </button>
                      )}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
        ))}
      </div>
      {meeting && <ClassPanel key={meeting.id + meeting.version} meeting={meeting} school={school} close={() => setChosen(undefined)} saved={saved} />}
      {cohort && <AssignPanel key={cohort.id} cohort={cohort} close={() => setChosen(undefined)} saved={saved} />}
    </div>
  )
}
