import { useQuery } from '@tanstack/react-query'
import { useId, useState } from 'react'
import { useNavigate } from 'react-router'
import { posturesQuery } from '../shared/material'
import { peopleQuery, placesOf, studentsQuery } from '../shared/people'
import type { Schema } from '../api/client'
import { plain } from '../ui/words'
import { rooms } from './rooms'

interface Hit {
  name: string
  what: string
  path: string
}

interface FindProps {
  /** What was typed before it was there. */
  begun?: () => string
  close: () => void
}

/** Finds a room, posture, student or class by any part of its name. */
export function Find({ begun = () => '', close }: FindProps) {
  const navigate = useNavigate()
  const id = useId()
  const [text, setText] = useState(begun)
  const [chosen, setChosen] = useState(0)
  const postures = useQuery(posturesQuery())
  const students = useQuery(studentsQuery())
  const people = useQuery(peopleQuery())

  const placeOf = (student: Schema['StudentItem']) => people.data && placesOf(people.data, student)[0]
  const all: Hit[] = [
    ...rooms.map((room) => ({ name: room.name, what: 'room', path: room.path })),
    ...(people.data?.classes ?? []).map((one) => ({ name: one.name, what: 'class', path: `/term/${one.id}` })),
    ...(students.data ?? []).map((student) => {
      const place = placeOf(student)
      return {
        name: student.name,
        what: place?.cohort.name ?? 'student',
        path: place
          ? `/progress/${place.schoolClass.id}?student=${student.id}`
          : `/people?view=roster&student=${student.id}`,
      }
    }),
    ...(postures.data ?? []).flatMap((posture) =>
      [posture.name, ...posture.otherNames].map((name) => ({
        name,
        what: name === posture.name ? posture.kind : posture.name,
        path: `/forms/postures/${posture.id}`,
      })),
    ),
  ]
  const wanted = plain(text.trim())
  const hits = wanted ? all.filter((hit) => plain(hit.name).includes(wanted)).slice(0, 10) : []

  const go = (hit: Hit | undefined) => {
    if (!hit) return
    close()
    void navigate(hit.path)
  }
  return (
    <>
      <input
        autoFocus
        role="combobox"
        aria-expanded={hits.length > 0}
        aria-controls={`${id}-hits`}
        aria-activedescendant={hits[chosen] && `${id}-${chosen}`}
        aria-autocomplete="list"
        autoComplete="off"
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
            const by = event.key === 'ArrowDown' ? 1 : -1
            setChosen((before) => Math.max(0, Math.min(hits.length - 1, before + by)))
          }
          if (event.key === 'Enter') go(hits[chosen])
        }}
      />
      <ul id={`${id}-hits`} role="listbox" aria-label="Found" className="mt-2 empty:hidden">
        {hits.map((hit, at) => (
          <li
            key={hit.path + hit.name}
            id={`${id}-${at}`}
            role="option"
            aria-selected={at === chosen}
            className={`flex items-baseline justify-between gap-3 rounded px-2.5 py-1.5 ${at === chosen ? 'bg-pine-tint' : ''}`}
            onMouseEnter={() => setChosen(at)}
            onClick={() => go(hit)}
          >
            <span className="font-semibold">{hit.name}</span>
            <span className="text-right text-soft">{hit.what}</span>
          </li>
        ))}
      </ul>
      <p role="status" className="px-2.5 text-soft">
        {wanted && hits.length === 0
          ? students.isPending || postures.isPending
            ? 'Looking…'
            : `Nothing is called “${text}”.`
          : wanted && <span className="sr-only">{hits.length} found</span>}
      </p>
    </>
  )
}
