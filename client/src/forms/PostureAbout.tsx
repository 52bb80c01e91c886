import { useMemo } from 'react'
import type { Schema } from '../api/client'
import { useEngine } from '../engine/engine'
import { countedOf, freeWords } from '../shared/counted'
import type { Draft } from '../shared/draft'
import { ChoiceField, DateInput, DraftRows, LinesField, TextField } from '../shared/fields'
import { leave } from '../shared/leaving'
import { useSignedIn } from '../shared/session'
import { useWays } from '../shared/ways'
import { Choice } from '../ui/Field'
import { newId } from '../ui/new-id'
import { Rows } from '../ui/Rows'
import { Option } from '../ui/Select'
import { AskedOf } from './AskedOf'
import type { ChangePosture, PostureText, Side } from './data'
import { useLent } from './lent'

const names = {
  leadingFoot: 'the leading foot',
  leadingHand: 'the leading hand',
  standingLeg: 'the standing leg',
  steppingFoot: 'the stepping foot',
  nothing: 'nothing',
} as const

/** What a posture is called, what is kept of it when everything else gives way, and what it asks for. */
export function AboutPage({
  draft,
  id,
  postures,
  takeOut,
}: {
  draft: Draft<PostureText>
  id: string
  postures: Schema['PostureItem'][]
  takeOut: () => void
}) {
  const { today } = useSignedIn()
  const { text, change, at } = draft
  return (
    <div className="grid max-w-3xl gap-4">
      <TextField draft={draft} name="name" label="Name" />
      <LinesField draft={draft} name="otherNames" label="Other names, one to a line" />
      <TextField draft={draft} name="keyPoint" label="Key point: the one thing kept when everything else gives way" />
      <div className="grid grid-cols-2 gap-4 md:grid-cols-3">
        <TextField draft={draft} name="family" label="Family" />
        <ChoiceField draft={draft} name="kind" label="Kind">
          <Option value="posture">posture</Option>
          <Option value="drill">drill</Option>
        </ChoiceField>
        <Choice
          label="Difficulty"
          value={String(text.difficulty)}
          onChange={(difficulty) => change({ difficulty: Number(difficulty) })}
        >
          <Option value="1">1, easy</Option>
          <Option value="2">2, middling</Option>
          <Option value="3">3, hard</Option>
        </Choice>
        <Choice<Side>
          label="Written for"
          value={text.writtenSide}
          error={at('writtenSide')}
          onChange={(side) =>
            change({
              writtenSide: side,
              namedBy: side === 'symmetric' ? 'nothing' : text.namedBy === 'nothing' ? 'leadingFoot' : text.namedBy,
            })
          }
        >
          <Option value="left">the left</Option>
          <Option value="right">the right</Option>
          <Option value="symmetric">no side</Option>
        </Choice>
        {text.writtenSide !== 'symmetric' && (
          <ChoiceField draft={draft} name="namedBy" label="Its side is named by">
            {Object.entries(names)
              .filter(([value]) => value !== 'nothing')
              .map(([value, name]) => (
                <Option key={value} value={value}>
                  {name}
                </Option>
              ))}
          </ChoiceField>
        )}
      </div>
      <AskedOfPosture draft={text} change={change} />
      <Rows
        label="Needed before it"
        items={text.needs}
        add="Add a posture or drill"
        make={() => postures.find((one) => one.kind === 'drill' && !text.needs.includes(one.id))?.id ?? ''}
        onChange={(needs) => change({ needs })}
      >
        {(need, _, place) => (
          <Choice
            label="Posture or drill"
            value={need}
            onChange={(value) => change({ needs: text.needs.with(place, value) })}
            error={at(`needs[${place}]`)}
          >
            {postures
              .filter((one) => one.id !== id)
              .map((one) => (
                <Option key={one.id} value={one.id}>
                  {one.name}
                </Option>
              ))}
          </Choice>
        )}
      </Rows>
      <LinesField draft={draft} name="cautions" label="Cautions, one to a line" />
      <DraftRows
        draft={draft}
        name="changes"
        label="Done differently from a date on"
        add="Add a change of the standard"
        make={() => ({ id: newId(), from: today, difference: '' })}
      >
        {(_, place) => (
          <div className="grid grid-cols-[220px_1fr] gap-3">
            <DateInput draft={draft} name={`changes.${place}.from`} label="From" />
            <TextField draft={draft} name={`changes.${place}.difference`} label="Only the difference" />
          </div>
        )}
      </DraftRows>
      <button type="button" className="quiet-link justify-self-start" onClick={() => leave(takeOut)}>
        Take this posture out of the catalogue
      </button>
    </div>
  )
}

/** What the posture itself asks of a body, following every keystroke. */
function AskedOfPosture({ draft, change }: { draft: PostureText; change: ChangePosture }) {
  const engine = useEngine().data
  const { pivots } = useWays()
  const whole = useLent(draft)
  const asks = useMemo(
    () => engine?.asks(countedOf(whole, undefined, pivots.onBall), whole.counts.map(freeWords)),
    [engine, whole, pivots.onBall],
  )
  return (
    asks && (
      <AskedOf
        label="What it asks of a body"
        asks={asks}
        added={draft.demands}
        takenOff={draft.notAsked}
        onChange={(demands, notAsked) => change({ demands, notAsked })}
      />
    )
  )
}
