import { usePrefetchQuery } from '@tanstack/react-query'
import { NavLink } from 'react-router'
import { figuresQuery } from '../shared/SmallFigure'

const places = [
  { to: '/forms', name: 'Forms' },
  { to: '/forms/postures', name: 'Postures' },
  { to: '/forms/principles', name: 'Principles and links' },
  { to: '/forms/files', name: 'Import and export' },
]

/** What there is in this room. */
export function FormsNav({ here }: { here: string }) {
  // The catalogue, one press away, stands with its figures at once.
  usePrefetchQuery(figuresQuery('standing'))
  return (
    <nav aria-label="Forms" className="flex gap-5 border-b border-line bg-plaster px-5">
      {places.map((place) => (
        <NavLink
          key={place.to}
          to={place.to}
          end
          className={`-mb-px border-b-2 py-2 font-semibold ${here === place.to ? 'border-pine text-ink' : 'border-transparent text-soft hover:text-ink'}`}
        >
          {place.name}
        </NavLink>
      ))}
    </nav>
  )
}
