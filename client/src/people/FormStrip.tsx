import { useRef, useState } from 'react'
import { SmallFigure } from '../shared/SmallFigure'
import { useGrid } from '../ui/grid'
import type { Form } from './data'

/** A run of positions, by their places in the form. */
export interface Run {
  from: number
  to: number
}

interface FormStripProps {
  form: Form
  /** Runs that are marked already, the chosen one by its index. */
  runs: readonly Run[]
  chosen: number
  /** Places a run leaves out. */
  leftOut: ReadonlySet<string>
  /** What is to be said at a position. */
  notes: ReadonlyMap<string, string>
  /** How the group does it, and its colour. */
  mode?: string
  sash?: string
  /** A run was dragged, or its two ends were chosen one after the other. */
  mark: (run: Run) => void
}

/** What each position is called by: its number, the first of several, or its place after the last number ("32.1"). */
export function placesOf(form: Form): string[] {
  let [number, after] = ['0', 0]
  return form.study.positions.map((position) => {
    if (!position.number) return `${number}.${++after}`
    ;[number, after] = [/^\d+/.exec(position.number)?.[0] ?? position.number, 0]
    return number
  })
}

/** A form from end to end: drag over positions to mark a run, or choose its first and its last one. */
export function FormStrip({ form, runs, chosen, leftOut, notes, mode = 'standing', sash, mark }: FormStripProps) {
  const grid = useGrid<HTMLDivElement>()
  const places = placesOf(form)
  const [start, setStart] = useState<number>()
  const [over, setOver] = useState<number>()
  // Whether the press that is going on chose the first end: its own click must not choose the last one too.
  const begins = useRef(false)
  const pending: Run | undefined =
    start === undefined ? undefined : { from: Math.min(start, over ?? start), to: Math.max(start, over ?? start) }
  const finish = (at: number) => {
    if (start === undefined) return
    mark({ from: Math.min(start, at), to: Math.max(start, at) })
    setStart(undefined)
    setOver(undefined)
  }
  return (
    <>
      <div role="grid" aria-label={`Positions of ${form.text.name}`} className="touch-pan-y select-none" {...grid}>
        {form.text.sections.map((section, row) => (
          <div key={section.id} role="row" className="mb-4">
            <h3 role="rowheader" className="mb-1 text-base">
              {section.name}
            </h3>
            <div role="presentation" className="grid grid-cols-[repeat(auto-fill,minmax(104px,1fr))] gap-[3px]">
              {form.text.positions.map((position, at) => {
                if (position.sectionId !== section.id) return null
                const about = form.study.positions[at]!
                const inRun = runs.findIndex((run) => at >= run.from && at <= run.to)
                const isChosen = chosen >= 0 && at >= (runs[chosen]?.from ?? 0) && at <= (runs[chosen]?.to ?? -1)
                const isPending = pending !== undefined && at >= pending.from && at <= pending.to
                const isOut = leftOut.has(position.id) && isChosen
                const note = notes.get(position.id)
                return (
                  <div key={position.id} role="gridcell" aria-selected={isChosen}>
                    <button
                      type="button"
                      data-grid={`${row},${at}`}
                      tabIndex={-1}
                      aria-label={`${about.number ?? ''} ${about.name}${isOut ? ', left out' : ''}${note ? `: ${note}` : ''}`.trim()}
                      title={note}
                      className={`relative grid h-full min-h-[52px] w-full content-start rounded-sm border-b-4 px-1.5 pt-1 pb-1 text-left text-small leading-tight ${
                        isPending
                          ? 'border-pine bg-pine-tint outline-2 outline-pine'
                          : isChosen
                            ? 'border-pine bg-pine-tint'
                            : inRun >= 0
                              ? 'border-river bg-white'
                              : 'border-fine bg-paper hover:bg-white'
                      }`}
                      onPointerDown={(event) => {
                        // The other cells have to hear of the finger too.
                        if (event.currentTarget.hasPointerCapture(event.pointerId))
                          event.currentTarget.releasePointerCapture(event.pointerId)
                        begins.current = start === undefined
                        if (start === undefined) {
                          setStart(at)
                          setOver(at)
                        }
                      }}
                      onPointerEnter={() => start !== undefined && setOver(at)}
                      onPointerUp={() => begins.current && start !== undefined && start !== at && finish(at)}
                      onFocus={() => start !== undefined && setOver(at)}
                      onClick={(event) => {
                        // A key presses without a pointer before it.
                        if (event.detail === 0) begins.current = false
                        if (start === undefined) setStart(at)
                        else if (!begins.current) finish(at)
                        begins.current = false
                      }}
                    >
                      <span className="flex justify-between font-serif font-bold">
                        {about.number ?? <span className="font-normal text-soft">{places[at]}</span>}
                        {note && <span className="size-2 rounded-full bg-ochre-mark" aria-hidden />}
                      </span>
                      <span className={`font-serif ${isOut ? 'text-soft line-through' : ''}`}>{about.name}</span>
                      {/* Its room is there before it is, so that nothing moves under a finger. */}
                      <span className="mt-0.5 grid h-11 place-items-center">
                        <SmallFigure
                          postureId={position.postureId}
                          side={position.side}
                          mode={mode}
                          {...(sash !== undefined && { sash })}
                          className="h-11"
                        />
                      </span>
                    </button>
                  </div>
                )
              })}
            </div>
          </div>
        ))}
      </div>
      <p className="text-soft" role="status">
        {start === undefined
          ? 'Drag over the form, or choose the first and then the last position.'
          : `From ${form.study.positions[start]!.name}: now the last one.`}
        {start !== undefined && (
          <button type="button" className="quiet-link ml-3" onClick={() => setStart(undefined)}>
            Forget it
          </button>
        )}
      </p>
    </>
  )
}
