import { memo, useState } from 'react'
import type { Schema } from '../api/client'
import { Dial } from '../ui/Dial'
import { newId } from '../ui/new-id'
import { useSteady } from '../ui/use-steady'
import { FormFinding } from './FormFinding'
import { useWays } from '../shared/ways'
import type { Form, FormText, Position } from './data'
import { Option } from '../ui/Select'
import { Choice, Field } from '../ui/Field'

interface PositionListProps {
  form: Form
  chosen: Position | undefined
  postures: Schema['PostureItem'][]
  editable: boolean
  choose: (position: Position) => void
  open: (position: Position) => void
  edit: (position: Position, part: Partial<Position>, what: string) => void
  change: (what: string, wanted: FormText, then?: () => void) => void
}

/** The positions of a form, section by section; what disagrees stands at the position it concerns. */
export function PositionList({ form, chosen, postures, editable, choose, open, edit, change }: PositionListProps) {
  const { text } = form
  const { say } = useWays()
  const [naming, setNaming] = useState<string | null>(null)
  const actions = useSteady({ choose, open, edit, change })

  const rename = (sectionId: string, name: string) => {
    setNaming(null)
    const section = text.sections.find((one) => one.id === sectionId)
    if (section && name.trim() && name !== section.name)
      change(`naming ${section.name}`, {
        ...text,
        sections: text.sections.map((one) => (one.id === sectionId ? { ...one, name } : one)),
      })
  }

  return (
    <>
      {text.sections.map((section) => (
        <section key={section.id} aria-label={section.name}>
          <div className="sticky top-0 z-10 flex items-center justify-between gap-3 border-b border-line bg-plaster px-5 py-1.5">
            {naming === section.id ? (
              <input
                autoFocus
                className="field flex-1 font-serif"
                aria-label="Name of the section"
                defaultValue={section.name}
                onBlur={(event) => rename(section.id, event.target.value)}
                onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
              />
            ) : (
              <h2 className="text-base">{section.name}</h2>
            )}
            {editable && naming !== section.id && (
              <button type="button" className="quiet-link" onClick={() => setNaming(section.id)}>
                Rename
              </button>
            )}
          </div>
          <ol>
            {text.positions.map((position, at) => {
              if (position.sectionId !== section.id) return null
              return (
                <PositionRow
                  key={position.id}
                  at={at}
                  position={position}
                  form={form}
                  isChosen={position.id === chosen?.id}
                  editable={editable}
                  actions={actions}
                />
              )
            })}
          </ol>
        </section>
      ))}
      {editable && (
        <AddPosition text={text} postures={postures} chosen={chosen} change={change} choose={choose} say={say} />
      )}
    </>
  )
}

interface PositionRowProps {
  at: number
  position: Position
  form: Form
  isChosen: boolean
  editable: boolean
  actions: Pick<PositionListProps, 'choose' | 'open' | 'edit' | 'change'>
}

/** One position; drawn anew only when it changes itself, so that a form that is played goes down its list without a hitch. */
const PositionRow = memo(function PositionRow({
  at,
  position,
  form: { text, study },
  isChosen,
  editable,
  actions,
}: PositionRowProps) {
  const about = study.positions[at]!
  return (
    <li
      className={`border-b border-l-4 border-b-fine ${isChosen ? 'border-l-pine bg-pine-tint' : 'border-l-transparent'}`}
    >
      <div className="flex items-center">
        <button
          type="button"
          data-grid={`${at},0`}
          tabIndex={-1}
          aria-pressed={isChosen}
          className="grid min-w-0 flex-1 grid-cols-[40px_1fr_auto_30px] items-center gap-2.5 py-1.5 pr-2 pl-3 text-left"
          onClick={() => actions.choose(position)}
          onDoubleClick={() => actions.open(position)}
        >
          <span className="text-right font-serif font-bold">
            {about.number ?? <span className="font-normal text-soft">–</span>}
          </span>
          <span className={`min-w-0 font-serif text-lg font-semibold ${about.number === null ? 'pl-3' : ''}`}>
            {about.name}
            {position.repeats > 1 && (
              <span className="font-sans text-small font-normal text-soft"> × {position.repeats}</span>
            )}
            {about.diagonal !== 0 && <span className="font-sans text-small font-normal text-soft"> · diagonal</span>}
            {position.isTransition && <span className="font-sans text-small font-normal text-soft"> · transition</span>}
          </span>
          <span className="text-right text-small text-soft">
            {position.turn !== 0 && (
              <>
                {Math.abs(position.turn)}° {position.turn > 0 ? 'right' : 'left'} ·{' '}
              </>
            )}
            {about.facingSaid}
          </span>
          <Dial facing={position.facing} said={about.facingSaid} size={26} />
        </button>
        {isChosen && (
          <button type="button" className="quiet-link pr-4" onClick={() => actions.open(position)}>
            Open
          </button>
        )}
      </div>
      {study.findings
        .filter((finding) => finding.positionId === position.id)
        .map((finding) => (
          <div key={`${finding.rule}${finding.count}${finding.foot}`} className="mx-5 mb-2">
            <FormFinding
              finding={finding}
              text={text}
              editable={editable}
              edit={(part, what) => actions.edit(position, part, what)}
              change={actions.change}
            />
          </div>
        ))}
    </li>
  )
})

interface AddPositionProps {
  text: FormText
  postures: Schema['PostureItem'][]
  chosen: Position | undefined
  change: PositionListProps['change']
  choose: (position: Position) => void
  say: (degrees: number) => string
}

/** A new position after the chosen one, facing where its steps lead. */
function AddPosition({ text, postures, chosen, change, choose, say }: AddPositionProps) {
  const [name, setName] = useState('')
  const [side, setSide] = useState<Schema['Side']>('left')
  const simple = postures.filter((posture) => !posture.isCompound)
  const posture = simple.find(
    (one) =>
      one.name.toLowerCase() === name.trim().toLowerCase() ||
      one.otherNames.some((other) => other.toLowerCase() === name.trim().toLowerCase()),
  )
  const after = chosen ? text.positions.findIndex((position) => position.id === chosen.id) : text.positions.length - 1
  const before = text.positions[after]
  const sided = posture !== undefined && posture.writtenSide !== 'symmetric'
  const chosenSide = sided ? side : 'symmetric'
  const turn = posture ? (chosenSide === posture.writtenSide || !sided ? posture.turn : -posture.turn) : 0
  const rounded = Math.round(turn / 45) * 45
  const facing = ((((before?.facing ?? 0) + rounded) % 360) + 360) % 360

  const add = () => {
    if (!posture) return
    const position: Position = {
      id: newId(),
      sectionId: before?.sectionId ?? text.sections[0]!.id,
      postureId: posture.id,
      side: chosenSide,
      turn: rounded,
      facing,
      repeats: 1,
      note: '',
      compoundId: null,
      wayIn: '',
      wayInBody: '',
      parentId: null,
      isTransition: false,
    }
    change(`adding ${posture.name}`, { ...text, positions: text.positions.toSpliced(after + 1, 0, position) }, () => {
      setName('')
      choose(position)
    })
  }
  const addSection = () =>
    change('adding a section', {
      ...text,
      sections: [...text.sections, { id: newId(), name: `Section ${text.sections.length + 1}` }],
    })

  return (
    <form
      className="grid gap-2 border-b border-line px-5 py-3"
      onSubmit={(event) => {
        event.preventDefault()
        add()
      }}
    >
      <div className="flex flex-wrap items-end gap-2">
        <div className="flex-1">
          <Field
            label={before ? 'Add a position after the chosen one' : 'Add a position'}
            value={name}
            onChange={setName}
            placeholder="posture"
            suggestions={[...new Set(simple.flatMap((one) => [one.name, ...one.otherNames]))]}
          />
        </div>
        {sided && (
          <Choice label="Side" value={side} onChange={setSide}>
            <Option value="left">left</Option>
            <Option value="right">right</Option>
          </Choice>
        )}
        <button type="submit" className="button" disabled={!posture}>
          Add
        </button>
      </div>
      <div className="flex justify-between gap-3">
        <span className="text-soft">
          {posture ? `It will face ${say(facing)}.` : name.trim() ? 'No posture of the school has this name.' : ''}
        </span>
        <button type="button" className="quiet-link" onClick={addSection}>
          Add a section
        </button>
      </div>
    </form>
  )
}
