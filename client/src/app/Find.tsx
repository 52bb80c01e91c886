import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { answer, api, type Schema } from '../api/client'
import { placesOf } from './places'
import { rooms } from './rooms'

interface Hit {
  name: string
  what: string
  path: string
}

/** Finds a room, posture, student or class by any part of its name. */
export function Find({ close }: { close: () => void }) {
  const navigate = useNavigate()
  const [text, setText] = useState('')
  const [chosen, setChosen] = useState(0)
  const postures = useQuery({ queryKey: ['postures'], queryFn: () => answer(api.GET('/api/postures')) })
  const students = useQuery({ queryKey: ['students'], queryFn: () => answer(api.GET('/api/students')) })
  const people = useQuery({ queryKey: ['people'], queryFn: () => answer(api.GET('/api/people')) })

  const cohortOf = (student: Schema['StudentItem']) => people.data && placesOf(people.data, student)[0]
  const all: Hit[] = [
    ...rooms.map((room) => ({ name: room.name, what: 'room', path: room.path })),
    ...(people.data?.classes ?? []).map((meeting) => ({
      name: meeting.name,
      what: 'class',
      path: `/term/${meeting.id}`,
    })),
    ...(students.data ?? []).map((student) => ({
      name: student.name,
      what: cohortOf(student)?.cohort.name ?? 'student',
      path: cohortOf(student)
        ? `/progress/${cohortOf(student)!.meeting.id}?student=${student.id}`
        : `/people?view=roster&student=${student.id}`,
    })),
    ...(postures.data ?? []).flatMap((posture) =>
      [posture.name, ...posture.otherNames].map((name) => ({
        name,
        what: name === posture.name ? posture.kind : posture.name,
        path: `/forms/postures/${posture.id}`,
      })),
    ),
  ]
  const wanted = text.trim().toLowerCase()
  const hits = wanted ? all.filter((hit) => hit.name.toLowerCase().includes(wanted)).slice(0, 10) : []

  const go = (hit: Hit | undefined) => {
    if (!hit) return
    void navigate(hit.path)
    close()
  }

  return (
    <section
      aria-label="Find"
      className="absolute top-full right-5 z-40 mt-2 w-96 rounded-lg border border-line bg-paper p-3 shadow-lg"
    >
      <input
        autoFocus
        type="search"
        className="field w-full"
        aria-label="Find a posture, a student or a class"
        placeholder="Posture, student or class"
        value={text}
        onChange={(event) => {
          setText(event.target.value)
          setChosen(0)
        }}
        onKeyDown={(event) => {
          if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
            event.preventDefault()
            setChosen((at) => Math.max(0, Math.min(hits.length - 1, at + (event.key === 'ArrowDown' ? 1 : -1))))
          }
          if (event.key === 'Enter') go(hits[chosen])
        }}
      />
      <ul className="mt-2" aria-live="polite">
        {hits.map((hit, at) => (
          <li key={hit.path + hit.name}>
            <button
              type="button"
              className={`flex w-full justify-between gap-3 rounded px-2.5 py-1.5 text-left ${at === chosen ? 'bg-pine-tint' : ''}`}
              onClick={() => go(hit)}
            >
              <span className="font-semibold">{hit.name}</span>
              <span className="text-soft">{hit.what}</span>
            </button>
          </li>
        ))}
        {wanted && hits.length === 0 && <li className="px-2.5 py-1.5 text-soft">Nothing is called “{text}”.</li>}
      </ul>
    </section>
  )
}
