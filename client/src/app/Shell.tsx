import { useQueryClient } from '@tanstack/react-query'
import {
  cloneElement,
  Suspense,
  useCallback,
  useEffect,
  useRef,
  useState,
  type ReactElement,
  type ReactNode,
} from 'react'
import { Link, NavLink, useLocation, useNavigate } from 'react-router'
import { LeavingQuestion } from '../shared/leaving'
import { useIsAway } from '../shared/connection'
import { later } from '../shared/fetched'
import { sessionQuery, useSignedIn } from '../shared/session'
import { UndoRoom } from '../shared/undo'
import { useKeys } from '../ui/keys'
import { Kbd } from '../ui/Kbd'
import type { PopoverProps } from '../ui/Popover'
import { SOLE_PATH } from '../ui/sole-path'
import { useMedia } from '../ui/use-media'
import { rooms } from './rooms'

const popover = () => import('../ui/Popover')
const find = () => import('./Find')
const Popover = later(() => popover().then((popover) => popover.Popover))
const FootBar = later(() => import('./FootBar').then((bar) => bar.FootBar))
const KeyHelp = later(() => import('./KeyHelp').then((help) => help.KeyHelp))
const MovingInBar = later(() => import('../today/MovingInBar').then((bar) => bar.MovingInBar))
const Find = later(() => find().then((found) => found.Find))

const MOVING_IN = '/moving-in'

type Opened = 'find' | 'keys'

/** The rooms, the find box, and the keys that work everywhere. On a phone the rooms of the hall are at the foot, the others under More. */
export function Shell({ children }: { children: ReactNode }) {
  const { movingIn, mayBegin } = useSignedIn()
  const navigate = useNavigate()
  const { pathname } = useLocation()
  const [open, setOpen] = useState<Opened | null>(null)
  // What is put away late does not put away what has been opened since.
  const turn = (which: Opened) => (now: boolean) => setOpen((was) => (now ? which : was === which ? null : was))
  const small = !useMedia('(min-width: 768px)')
  const going = useRef(false)
  const main = useRef<HTMLElement>(null)
  const takeTyped = useTypedAhead(open === 'find')
  useArrival(main, pathname)
  // Fetched once the page stands, so that hardly anybody waits for it.
  useEffect(() => {
    const later = setTimeout(() => void Promise.all([popover(), find()]).catch(() => undefined), 1500)
    return () => clearTimeout(later)
  }, [])

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

  const hangFind: BarProps['find'] = (trigger) => (
    <OpenedLater
      label="Find"
      open={open === 'find'}
      onOpenChange={turn('find')}
      trigger={trigger}
      className="w-[min(28rem,calc(100vw-1.5rem))]"
    >
      <Suspense fallback={null}>
        <Find begun={takeTyped} close={() => turn('find')(false)} />
      </Suspense>
    </OpenedLater>
  )
  return (
    <div className="flex min-h-screen flex-col">
      <a
        href="#here"
        className="button screen-only fixed top-2 left-2 z-90 -translate-y-16 focus:translate-y-0"
        onClick={(event) => {
          event.preventDefault()
          main.current?.focus()
        }}
      >
        Skip to what is here
      </a>
      {small ? (
        <Suspense fallback={null}>
          <FootBar find={hangFind} />
        </Suspense>
      ) : (
        <HeadBar find={hangFind} keysOpen={open === 'keys'} setKeysOpen={turn('keys')} />
      )}
      <AwayNote />
      {mayBegin && pathname === '/' && (
        <p className="screen-only border-b border-line bg-floorboard px-5 py-2">
          You are looking at the demo school.{' '}
          <Link to="/begin" className="quiet-link">
            Begin our own school
          </Link>
        </p>
      )}
      {movingIn && pathname !== MOVING_IN && (
        <Suspense fallback={null}>
          <MovingInBar />
        </Suspense>
      )}
      <main ref={main} id="here" tabIndex={-1} className="flex flex-1 flex-col outline-none max-md:pb-16 print:pb-0">
        <UndoRoom key={pathname.split('/')[1]}>{children}</UndoRoom>
      </main>
      <LeavingQuestion />
    </div>
  )
}

export interface BarProps {
  /** Hangs the find box from a button. */
  find: (trigger: ReactElement<{ onClick?: () => void }>) => ReactNode
}

function HeadBar({
  find,
  keysOpen,
  setKeysOpen,
}: BarProps & { keysOpen: boolean; setKeysOpen: (open: boolean) => void }) {
  const { schoolName, person } = useSignedIn()
  return (
    <header className="screen-only relative z-30 flex items-center gap-x-3 border-b border-line bg-paper px-5 lg:gap-x-6">
      <Mark />
      <nav aria-label="Rooms" className="flex flex-1">
        {rooms.map((room) => (
          <NavLink
            key={room.path}
            to={room.path}
            end={room.path === '/'}
            className={({ isActive }) =>
              `border-b-3 px-2 py-4 font-semibold lg:px-3 ${isActive ? 'border-pine text-ink' : 'border-transparent text-soft hover:text-ink'}`
            }
          >
            {room.name}
          </NavLink>
        ))}
      </nav>
      <span className="hidden text-soft xl:inline">
        {schoolName && `${schoolName} · `}
        {person.name}
      </span>
      <OpenedLater
        label="Keys"
        open={keysOpen}
        onOpenChange={setKeysOpen}
        trigger={
          <button type="button" className="quiet-link hidden lg:inline">
            Keys
          </button>
        }
      >
        <Suspense fallback={null}>
          <KeyHelp />
        </Suspense>
      </OpenedLater>
      {find(
        <button type="button" className="button">
          Find <Kbd>/</Kbd>
        </button>,
      )}
    </header>
  )
}

/** What a button opens comes when it is first asked for: until then the button stands by itself. */
function OpenedLater({
  trigger,
  ...popover
}: Omit<PopoverProps, 'trigger'> & { trigger: ReactElement<{ onClick?: () => void }> }) {
  const [wanted, setWanted] = useState(popover.open)
  if (popover.open && !wanted) setWanted(true)
  const alone = cloneElement(trigger, { onClick: () => popover.onOpenChange(true) })
  return wanted ? (
    <Suspense fallback={alone}>
      <Popover trigger={trigger} {...popover} />
    </Suspense>
  ) : (
    alone
  )
}

function Mark() {
  return (
    <span className="flex items-center gap-2 py-3">
      <svg viewBox="0 0 24 40" className="h-6" aria-hidden>
        <path d={SOLE_PATH} className="fill-pine" />
      </svg>
      <span className="font-serif text-xl font-bold">Zeitplan</span>
    </span>
  )
}

/** How long between two questions to a server that does not answer. In milliseconds. */
const ASKED_AGAIN = 3000

/** A server that does not answer is asked again even from a page that asks nothing by itself; once it does, all that is shown is asked for anew. */
function useAskedAgain(away: boolean) {
  const queries = useQueryClient()
  const wasAway = useRef(away)
  useEffect(() => {
    if (wasAway.current && !away) void queries.refetchQueries({ type: 'active' })
    wasAway.current = away
    // No answer is one here: the note above says it.
    const ask = () => void queries.fetchQuery({ ...sessionQuery(), staleTime: 0, retry: false }).catch(() => undefined)
    // The browser's own idea of a network says nothing about our server, but it is a reason to ask.
    window.addEventListener('offline', ask)
    const again = away ? setInterval(ask, ASKED_AGAIN) : undefined
    return () => {
      window.removeEventListener('offline', ask)
      clearInterval(again)
    }
  }, [away, queries])
}

function AwayNote() {
  const away = useIsAway()
  useAskedAgain(away)
  return (
    <p
      role="status"
      className={away ? 'screen-only border-b border-ochre-mark bg-floorboard px-5 py-2 text-ochre' : 'sr-only'}
    >
      {away && 'The server does not answer. What you see may be older than what is there; Zeitplan goes on trying.'}
    </p>
  )
}

/** Letters typed after the slash while the find box is still on its way: it begins with them, and they do nothing else. */
function useTypedAhead(finding: boolean) {
  const typed = useRef('')
  useEffect(() => {
    if (!finding) return
    typed.current = ''
    const hold = (event: KeyboardEvent) => {
      if (document.activeElement instanceof HTMLInputElement || event.ctrlKey || event.metaKey || event.altKey) return
      if (event.key === 'Backspace') typed.current = typed.current.slice(0, -1)
      else if (event.key.length === 1) typed.current += event.key
      else return
      event.preventDefault()
      event.stopPropagation()
    }
    document.addEventListener('keydown', hold, true)
    return () => document.removeEventListener('keydown', hold, true)
  }, [finding])
  return useCallback(() => typed.current, [])
}

/** Coming to another page, reading begins at its beginning. */
function useArrival(main: React.RefObject<HTMLElement | null>, pathname: string) {
  const before = useRef(pathname)
  useEffect(() => {
    if (before.current === pathname) return
    before.current = pathname
    window.scrollTo(0, 0)
    main.current?.focus({ preventScroll: true })
  }, [main, pathname])
}
