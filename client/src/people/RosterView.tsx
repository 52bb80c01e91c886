import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { answer, api, type Schema } from '../api/client'
import { useSignedIn } from '../app/session'
import { useKeys } from '../ui/keys'
import { Ribbon } from '../ui/Ribbon'
import { Failure, Waiting } from '../ui/states'
import { dayMonth, halfWords } from '../ui/words'
import { StudentPanel } from './StudentPanel'

/** Every student with sash, class and cohort. */
export function RosterView({ school }: { school: Schema['PeopleResponse'] }) {
  const { isHead } = useSignedIn()
  const queries = useQueryClient()
  const [text, setText] = useState('')
  const [chosen, setChosen] = useState<string>()
  const students = useQuery({ queryKey: ['students'], queryFn: () => answer(api.GET('/api/students')) })
  useKeys((event) => {
    if (event.key !== 'Escape' || !chosen) return false
    setChosen(undefined)
    return true
  })
  if (students.isError) return <Failure error={students.error} retry={() => void students.refetch()} />
  if (students.isPending) return <Waiting what="Opening the roster" />
  const wanted = text.trim().toLowerCase()
  const shown = students.data.filter((student) => [student.name, student.sash, student.cohort, student.class].some((part) => part.toLowerCase().includes(wanted)))
  const student = students.data.find((one) => one.id === chosen)
  return (
    <div className={`grid flex-1 ${chosen ? 'lg:grid-cols-[minmax(0,1fr)_360px]' : ''}`}>
      <div className="min-w-0 px-5 pb-10">
        <div className="flex flex-wrap items-center gap-3 pb-3">
          <input type="search" className="field w-72" aria-label="Filter the roster" placeholder="Name, sash, class or cohort" value={text} onChange={(event) => setText(event.target.value)} />
          <span className="text-soft" role="status">
            {shown.length} of {students.data.length}
          </span>
          {isHead && (
            <button type="button" className="button ml-auto" onClick={() => setChosen('new')}>
              Add a student
            </button>
          )}
        </div>
        <table className="w-full border-collapse bg-paper">
          <thead>
            <tr className="border-b border-line text-left text-soft">
              {['Name', 'Sash', 'Cohort', 'Class', 'Mode', 'Joined', ''].map((head) => (
                <th key={head} scope="col" className="px-3 py-2 font-semibold">
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {shown.map((one) => (
              <tr key={one.id} className={`border-b border-fine ${one.id === chosen ? 'bg-pine-tint' : ''}`}>
                <th scope="row" className="px-3 py-1.5 text-left font-semibold">
                  <Link to={`/progress/${one.classId}?student=${one.id}`} className="hover:underline">
                    {one.name}
                  </Link>
                </th>
                <td className="px-3 py-1.5">
                  <span className="flex items-center gap-2">
                    <Ribbon colour={one.sashColour} half={one.half} size={20} />
                    {one.sash} {halfWords[one.half]}
                  </span>
                </td>
                <td className="px-3 py-1.5">{one.cohort}</td>
                <td className="px-3 py-1.5">{one.class}</td>
                <td className="px-3 py-1.5">{one.mode}</td>
                <td className="px-3 py-1.5 text-soft">
                  {dayMonth(one.joined)} {one.joined.slice(0, 4)}
                </td>
                <td className="px-3 py-1.5 text-right">
                  {isHead && (
                    <button type="button" className="quiet-link" aria-label={`Change ${one.name}`} onClick={() => setChosen(one.id)}>
                      Change
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {shown.length === 0 && <p className="p-4 text-soft">Nobody matches “{text}”.</p>}
      </div>
      {(student !== undefined || chosen === 'new') && (
        <StudentPanel
          key={student ? student.id + student.version : 'new'}
          student={student}
          school={school}
          close={() => setChosen(undefined)}
          saved={() => {
            void queries.invalidateQueries({ queryKey: ['students'] })
            void queries.invalidateQueries({ queryKey: ['people'] })
          }}
        />
      )}
    </div>
  )
}
