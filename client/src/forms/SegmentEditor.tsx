import { useState } from 'react'
import type { Schema } from '../api/client'
import { useEngine } from '../engine/engine'
import { useDraft } from '../shared/draft'
import { Collapsible } from '../ui/Collapsible'
import { newId } from '../ui/new-id'
import { Option, Select } from '../ui/Select'
import type { Form, FormText, Position } from './data'
import { NotationField } from './NotationField'

/** Runs of positions taught as one assignment: those that begin or end here. */
export function SegmentEditor({
  form,
  position,
  change,
}: {
  form: Form
  position: Position
  change: (what: string, wanted: FormText, then?: () => void) => void
}) {
  const { text, study } = form
  const engine = useEngine().data
  const [begins, setBegins] = useState<string | null>(null)
  const [to, setTo] = useState(position.id)
  const place = (id: string) => text.positions.findIndex((one) => one.id === id)
  const here = place(position.id)
  const around = text.segments.filter((segment) => place(segment.fromId) <= here && here <= place(segment.toId))
  return (
    <div className="grid gap-2">
      <span className="font-semibold">Segments through here</span>
      {around.map((segment) => (
        <Collapsible
          key={segment.id}
          name={
            <>
              {segment.name}: {study.positions[place(segment.fromId)]?.name} to{' '}
              {study.positions[place(segment.toId)]?.name}
            </>
          }
        >
          <SegmentSteps
            key={segment.id}
            segment={segment}
            engine={engine}
            keep={(wanted) =>
              change(`the segment ${segment.name}`, {
                ...text,
                segments: text.segments.map((one) => (one.id === segment.id ? { ...one, ...wanted } : one)),
              })
            }
          />
          <button
            type="button"
            className="quiet-link mt-1"
            onClick={() =>
              change(`removing the segment ${segment.name}`, {
                ...text,
                segments: text.segments.filter((one) => one.id !== segment.id),
              })
            }
          >
            Remove this segment
          </button>
        </Collapsible>
      ))}
      {begins === null ? (
        <button type="button" className="quiet-link justify-self-start" onClick={() => setBegins('')}>
          Begin a segment here
        </button>
      ) : (
        <form
          className="flex flex-wrap gap-2"
          onSubmit={(event) => {
            event.preventDefault()
            if (begins.trim())
              change(
                `the segment ${begins.trim()}`,
                {
                  ...text,
                  segments: [
                    ...text.segments,
                    { id: newId(), name: begins.trim(), fromId: position.id, toId: to, entry: '', close: '' },
                  ],
                },
                () => setBegins(null),
              )
          }}
        >
          <input
            autoFocus
            className="field min-w-0 flex-1"
            aria-label="Name of the segment"
            placeholder="name"
            value={begins}
            maxLength={80}
            onChange={(event) => setBegins(event.target.value)}
          />
          <Select label="Last position of the segment" className="flex-1" value={to} onChange={setTo}>
            {text.positions.slice(here).map((one) => (
              <Option key={one.id} value={one.id}>
                to {study.positions[place(one.id)]?.name}
              </Option>
            ))}
          </Select>
          <button type="submit" className="button" disabled={!begins.trim()}>
            Make it
          </button>
        </form>
      )}
    </div>
  )
}

function SegmentSteps({
  segment,
  engine,
  keep,
}: {
  segment: Schema['Segment']
  engine: ReturnType<typeof useEngine>['data']
  keep: (wanted: { entry: string; close: string }) => void
}) {
  const draft = useDraft({
    about: ['segment', segment.id],
    what: `the segment ${segment.name}`,
    text: { entry: segment.entry, close: segment.close },
    version: null,
  })
  const { entry, close } = draft.text
  const unreadable =
    (engine?.steps.read(entry).problems.length ?? 0) + (engine?.steps.read(close).problems.length ?? 0) > 0
  return (
    <div className="mt-2 grid gap-2">
      <NotationField
        label="From feet together into its start"
        value={entry}
        onChange={(text) => draft.change({ entry: text })}
        notation={engine?.steps}
      />
      <NotationField
        label="A short close of its own"
        value={close}
        onChange={(text) => draft.change({ close: text })}
        notation={engine?.steps}
      />
      <button
        type="button"
        className="button justify-self-start"
        disabled={unreadable || !draft.dirty}
        onClick={() => keep({ entry, close })}
      >
        Save the segment
      </button>
    </div>
  )
}
