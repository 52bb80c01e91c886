import { useEffect, useState } from 'react'
import { useEngine } from '../engine/engine'
import { useDraft } from '../shared/draft'
import { useWays } from '../shared/ways'
import { START_FRAME } from '../ui/floor'
import type { Form, Position } from './data'
import type { Draft } from './draft'
import { NotationField } from './NotationField'
import { StepPicture } from './StepPicture'

/** Feet and hands between the end of the position before and the first count, in notation; the feet on the picture, too. */
export function WayInEditor({
  form,
  at,
  editable,
  edit,
  typing,
}: {
  form: Form
  at: number
  editable: boolean
  edit: (part: Partial<Position>, what: string) => void
  /** What is being typed and not yet kept, for the floor map; null when nothing is. */
  typing: (draft: Draft | null) => void
}) {
  const { text, study } = form
  const { pivots } = useWays()
  const engine = useEngine().data
  const position = text.positions[at]!
  const draft = useDraft({
    about: ['way in', position.id],
    what: `the way into ${study.positions[at]?.name}`,
    text: { steps: position.wayIn, hands: position.wayInBody },
    version: null,
  })
  const { steps, hands } = draft.text
  const [drawing, setDrawing] = useState(false)
  const before =
    study.floor.beats
      .filter((beat) => beat.at < at && beat.frames.length > 0)
      .at(-1)
      ?.frames.at(-1) ?? START_FRAME
  const after = (drawing && engine?.walk([...before], [steps], pivots)[0]?.at(-1)) || before
  const unreadable =
    engine !== undefined && engine.steps.read(steps).problems.length + engine.body.read(hands).problems.length > 0
  const type = (typed: string) => {
    draft.change({ steps: typed })
    typing(typed === position.wayIn ? null : { positionId: position.id, wayIn: typed })
  }
  // Whatever was typed and not kept is forgotten when the editor goes.
  useEffect(() => () => typing(null), [typing])
  return (
    <div className="grid gap-2">
      <NotationField
        label="Way in, from where the position before ends"
        value={steps}
        onChange={type}
        notation={engine?.steps}
      />
      <NotationField
        label="Hands, trunk and gaze meanwhile"
        value={hands}
        onChange={(typed) => draft.change({ hands: typed })}
        notation={engine?.body}
      />
      <div className="flex flex-wrap gap-3">
        <button
          type="button"
          className="button"
          disabled={!draft.dirty || unreadable}
          onClick={() => edit({ wayIn: steps, wayInBody: hands }, 'the way in')}
        >
          Save the way in
        </button>
        <button type="button" className="quiet-link" onClick={() => setDrawing(!drawing)}>
          {drawing ? 'Hide the picture' : 'Do it on the picture'}
        </button>
      </div>
      {drawing && engine && (
        <StepPicture
          label="The way in from above"
          engine={engine}
          pivots={pivots}
          steps={steps}
          before={before}
          after={after}
          editable={editable}
          onChange={type}
        />
      )}
    </div>
  )
}
