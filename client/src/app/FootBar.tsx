import { CalendarDays, ChartNoAxesColumn, Ellipsis, House, Search } from 'lucide-react'
import { NavLink, useNavigate } from 'react-router'
import { DropdownMenu } from '../ui/DropdownMenu'
import { rooms } from './rooms'
import type { BarProps } from './Shell'

const inTheHall = [
  { path: '/', name: 'Today', Icon: House },
  { path: '/lessons', name: 'Lessons', Icon: CalendarDays },
  { path: '/progress', name: 'Progress', Icon: ChartNoAxesColumn },
] as const

/** Within a thumb's reach. */
export function FootBar({ find }: BarProps) {
  const navigate = useNavigate()
  const place = 'flex min-h-14 flex-1 flex-col items-center justify-center gap-0.5 text-small font-semibold'
  return (
    <nav
      aria-label="Rooms"
      className="screen-only fixed inset-x-0 bottom-0 z-45 flex border-t border-line bg-paper px-1 pb-[env(safe-area-inset-bottom)]"
    >
      {inTheHall.map(({ path, name, Icon }) => (
        <NavLink
          key={path}
          to={path}
          end={path === '/'}
          className={({ isActive }) => `${place} ${isActive ? 'text-pine' : 'text-soft'}`}
        >
          <Icon size={20} aria-hidden />
          {name}
        </NavLink>
      ))}
      {find(
        <button type="button" className={`${place} text-soft`}>
          <Search size={20} aria-hidden />
          Find
        </button>,
      )}
      <DropdownMenu
        className={`${place} text-soft [&>svg:last-child]:hidden`}
        name={
          <>
            <Ellipsis size={20} aria-hidden />
            More
          </>
        }
        items={rooms
          .filter((room) => inTheHall.every(({ path }) => path !== room.path))
          .map((room) => ({ name: room.name, act: () => void navigate(room.path) }))}
      />
    </nav>
  )
}
