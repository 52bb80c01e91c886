import { useEffect, useRef, useState, type ReactNode } from 'react'
import { NavLink, useNavigate } from 'react-router'
import { useKeys } from '../ui/keys'
import { Kbd } from '../ui/Kbd'
import { SoleInk } from '../ui/Sole'
import { SOLE_PATH } from '../ui/sole-path'
import { Find } from './Find'
import { KeyHelp } from './KeyHelp'
import { rooms } from './rooms'
import { useSignedIn } from './session'

/** The row of rooms across the top, the find box, and the keys that work everywhere. */
export function Shell({ children }: { children: ReactNode }) {
  const { schoolName, person } = useSignedIn()
  const navigate = useNavigate()
  const [open, setOpen] = useState<'find' | 'keys' | null>(null)
  const going = useRef(false)

  useKeys((event) => {
    if (going.current) {
      going.current = false
      const room = rooms.find((candidate) => candidate.key === event.key)
      if (room) void navigate(room.path)
      return room !== undefined
    }
    if (event.key === 'g') {
      going.current = true
      return true
    }
    if (event.key === '/' || event.key === '?') {
      setOpen(event.key === '/' ? 'find' : 'keys')
      return true
    }
    return false
  })

  useEffect(() => {
    if (!open) return
    const close = (event: KeyboardEvent) => event.key === 'Escape' && setOpen(null)
    window.addEventListener('keydown', close)
    return () => window.removeEventListener('keydown', close)
  }, [open])

  return (
    <div className="flex min-h-screen flex-col">
      <SoleInk />
      <header className="screen-only relative z-30 flex flex-wrap items-center gap-x-3 border-b lg:gap-x-8 border-line bg-paper px-5">
        <span className="flex items-center gap-2 py-3">
          <svg viewBox="0 0 24 40" className="h-6" aria-hidden>
            <path d={SOLE_PATH} className="fill-pine" />
          </svg>
          <span className="font-serif text-xl font-bold">Zeitplan</span>
        </span>
        <nav aria-label="Rooms" className="flex flex-1 flex-wrap">
          {rooms.map((room) => (
            <NavLink
              key={room.path}
              to={room.path}
              end={room.path === '/'}
              className={({ isActive }) =>
                `border-b-3 px-2.5 py-4 lg:px-3.5 font-semibold ${isActive ? 'border-pine text-ink' : 'border-transparent text-soft hover:text-ink'}`
              }
            >
              {room.name}
            </NavLink>
          ))}
        </nav>
        <span className="hidden text-soft lg:inline">
          {schoolName} · {person.name}
        </span>
        <button
          type="button"
          className="button"
          onClick={() => setOpen(open === 'find' ? null : 'find')}
          aria-expanded={open === 'find'}
        >
          Find <Kbd>/</Kbd>
        </button>
        {open === 'find' && <Find close={() => setOpen(null)} />}
        {open === 'keys' && <KeyHelp close={() => setOpen(null)} />}
      </header>
      <main className="flex flex-1 flex-col">{children}</main>
    </div>
  )
}
