import { useState } from 'react'
import { Checkbox } from '../ui/Checkbox'
import { ContextMenu } from '../ui/ContextMenu'
import { useGrid } from '../ui/grid'
import type { MenuItem } from '../ui/menu'
import { Sole } from '../ui/Sole'
import { shortPostures, stageWords } from '../ui/words'
import type { RegisterItem, RegisterStudent } from './data'
import { howWords } from './went'

/** A student's sole; with no student, a thing for everybody. */
export interface Place {
  student: string | null
  item: number
}

interface RegisterTableProps {
  name: string
  items: RegisterItem[]
  students: RegisterStudent[]
  place: Place | undefined
  choose: (place: Place) => void
  attend: (who: readonly RegisterStudent[], present: boolean) => void
  /** Absent for whoever does not say what was taught. */
  say: ((item: RegisterItem, taught: boolean) => void) | undefined
  menu: (row: number, column: number) => readonly MenuItem[]
}

/** Students by what was planned: a sole for each, a tick for each thing taught. */
export function RegisterTable({ name, items, students, place, choose, attend, say, menu }: RegisterTableProps) {
  const [pressed, setPressed] = useState<string>()
  const grid = useGrid<HTMLTableElement>()
  const short = shortPostures(items.map((one) => one.name))
  const heads = items.map((one, at) => (one.kind === 'link' ? short[at] : one.name))
  const unsaid = students.filter((one) => one.present === null)
  const [row, column] = pressed?.split(',').map(Number) ?? []
  return (
    <ContextMenu
      items={row === undefined ? [] : menu(row, column!)}
      onOpen={(element) => setPressed(element.closest<HTMLElement>('[data-grid]')?.dataset.grid)}
    >
      <table role="grid" aria-label={`Register of ${name}`} className="border-collapse" {...grid}>
        <thead>
          <tr className="border-b border-line align-bottom">
            <th scope="col" className="sticky left-0 z-10 min-w-40 bg-paper px-5 py-2 text-left">
              {students.length} in {name}
            </th>
            <th scope="col" className="px-2 py-2">
              {unsaid.length > 0 ? (
                <button
                  type="button"
                  data-grid="0,0"
                  tabIndex={-1}
                  className="button"
                  onClick={() => attend(unsaid, true)}
                >
                  All here
                </button>
              ) : (
                'Here'
              )}
            </th>
            {items.map((one, at) => (
              <th key={one.kind + one.name} scope="col" className="min-w-28 px-2 py-2 text-left align-bottom">
                <button
                  type="button"
                  tabIndex={-1}
                  className="text-left font-serif hover:underline"
                  title="Mark everybody at once (e)"
                  onClick={() => choose({ student: null, item: at })}
                >
                  {heads[at]}
                </button>
                <TaughtTick item={one} at={at + 1} say={say} />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {students.map((one, row) => (
            <StudentRow
              key={one.studentId}
              student={one}
              row={row + 1}
              items={items}
              place={place}
              choose={choose}
              attend={(present) => attend([one], present)}
            />
          ))}
        </tbody>
      </table>
    </ContextMenu>
  )
}

/** Taught, not taught, or nobody has said so yet. */
function TaughtTick({ item, at, say }: { item: RegisterItem; at: number; say: RegisterTableProps['say'] }) {
  const words = `${howWords[item.how]}${item.taught === null ? ', not said' : item.taught ? '' : ', not taught'}`
  return say ? (
    <Checkbox
      className="mt-1 font-normal text-soft"
      grid={`0,${at}`}
      label={`${item.name}, ${words}`}
      checked={item.taught ?? 'indeterminate'}
      onChange={(taught) => say(item, taught)}
    >
      {words}
    </Checkbox>
  ) : (
    <span className="mt-1 block font-normal text-soft">{words}</span>
  )
}

/** What is chosen elsewhere than in the table, such as where somebody stopped, is not left out of sight. */
const inSight = (cell: HTMLElement | null) => cell?.scrollIntoView({ block: 'nearest', inline: 'nearest' })

interface StudentRowProps {
  student: RegisterStudent
  row: number
  items: RegisterItem[]
  place?: Place
  choose: (place: Place) => void
  attend: (present: boolean) => void
}

function StudentRow({ student, row, items, place, choose, attend }: StudentRowProps) {
  return (
    <tr className="border-b border-fine">
      <th
        scope="row"
        className={`sticky left-0 z-10 bg-paper px-5 py-1 text-left text-base ${student.present === false ? 'text-soft line-through' : ''}`}
      >
        {student.name}
      </th>
      <td className="px-2 py-1">
        <button
          type="button"
          data-grid={`${row},0`}
          tabIndex={-1}
          aria-label={`${student.name}: ${student.present === null ? 'not said' : student.present ? 'here' : 'away'}`}
          className={`button min-h-11 w-20 ${student.present ? 'border-pine bg-pine-tint text-pine' : ''}`}
          onClick={() => attend(student.present !== true)}
        >
          {student.present === null ? '–' : student.present ? 'here' : 'away'}
        </button>
      </td>
      {student.cells.map((cell, at) => {
        const chosen = place?.student === student.studentId && place.item === at
        const now = cell.today.at(-1)
        return (
          <td key={items[at]!.kind + items[at]!.name} aria-selected={chosen} className="px-2 py-1">
            <button
              type="button"
              ref={chosen ? inSight : undefined}
              data-grid={`${row},${at + 1}`}
              tabIndex={-1}
              className={`flex scroll-ml-44 min-h-11 w-full items-center gap-2 rounded px-2 ${chosen ? 'bg-pine-tint ring-2 ring-river' : 'hover:bg-plaster'}`}
              onClick={() => choose({ student: student.studentId, item: at })}
              onFocus={() => choose({ student: student.studentId, item: at })}
            >
              <Sole
                stage={cell.stage}
                side={cell.side}
                correction={cell.correction}
                fading={cell.fading}
                takenOver={cell.takenOver}
                of={`${student.name}, ${items[at]!.name}`}
                size={34}
              />
              {now && (
                <span className="text-small font-semibold text-pine">{now.stage ? stageWords[now.stage] : 'seen'}</span>
              )}
            </button>
          </td>
        )
      })}
    </tr>
  )
}
