import { memo } from 'react'
import type { Schema } from '../api/client'
import { useEngine, type PostureFinding } from '../engine/engine'
import { Checkbox } from '../ui/Checkbox'
import { Field, NumberField } from '../ui/Field'
import { withPicture, type ChangePosture, type Count } from './data'
import { emptyCount } from './empty-posture'
import { NotationField } from './NotationField'
import { PostureFindings, mended } from './PostureFindings'

interface CountFieldsProps {
  count: Count
  /** From 0. */
  index: number
  chosen: boolean
  choose: (count: number) => void
  /** What is empty is taken from a count of another posture. */
  takes: boolean
  /** It is the only count. */
  alone: boolean
  findings: PostureFinding[]
  ourWays: Schema['OurWay'][]
  at: (field: string) => string | undefined
  change: ChangePosture
}

/** One count with its layers. It is drawn anew only when it is the one that is written: a key in another count costs nothing here. */
export const CountFields = memo(function CountFields({
  count,
  index,
  chosen,
  choose,
  takes,
  alone,
  findings,
  ourWays,
  at,
  change,
}: CountFieldsProps) {
  const engine = useEngine().data
  const edit = (part: Partial<Count>) =>
    change(({ counts }) => ({ counts: counts.map((own, place) => (place === index ? { ...own, ...part } : own)) }))
  return (
    <fieldset
      className={`grid gap-2 rounded-lg border p-3 ${chosen ? 'border-pine' : 'border-line'}`}
      onFocus={() => choose(index + 1)}
    >
      <legend className="px-1 font-serif text-base font-semibold">Count {index + 1}</legend>
      <Field
        label="Cue, the few words called"
        value={count.cue}
        onChange={(cue) => edit({ cue })}
        error={at(`counts[${index}].cue`)}
      />
      <NotationField
        label="Feet"
        value={count.feet}
        onChange={(text) => edit({ feet: text })}
        notation={engine?.steps}
        error={at(`counts[${index}].feet`)}
      />
      <NotationField
        label="Hands, trunk and gaze"
        value={count.body}
        onChange={(body) => edit({ body })}
        notation={engine?.body}
        error={at(`counts[${index}].body`)}
      />
      <p className="text-soft">Remarks beside it, where the notation does not say enough:</p>
      <div className="grid grid-cols-2 gap-2 md:grid-cols-3">
        <Field label="Waist" value={count.waist} onChange={(waist) => edit({ waist })} />
        <Field label="Hands" value={count.hands} onChange={(hands) => edit({ hands })} />
        <Field label="Hand shape" value={count.shape} onChange={(shape) => edit({ shape })} />
        <Field label="Gaze" value={count.gaze} onChange={(gaze) => edit({ gaze })} />
        <Field label="Breath" value={count.breath} onChange={(breath) => edit({ breath })} />
        <Field label="Only if" value={count.onlyIf} onChange={(onlyIf) => edit({ onlyIf })} />
      </div>
      {takes && (
        <NumberField
          label="Takes what is empty from its count"
          value={count.as}
          onChange={(as) => edit({ as: as ?? 0 })}
          error={at(`counts[${index}].as`)}
        />
      )}
      <PostureFindings
        findings={findings}
        count={index + 1}
        mode="standing"
        ourWays={ourWays}
        keep={(kept) => change({ ourWays: kept })}
        mend={(edits) => change(({ counts }) => ({ counts: mended(counts, edits) }))}
      />
      <div className="flex flex-wrap gap-x-4 gap-y-2">
        <Checkbox
          checked={count.pictured}
          onChange={(pictured) => change(({ counts }) => ({ counts: withPicture(counts, index, pictured) }))}
          className="mr-auto"
        >
          Small pictures show this count
        </Checkbox>
        <button
          type="button"
          className="quiet-link"
          onClick={() => change(({ counts }) => ({ counts: counts.toSpliced(index + 1, 0, emptyCount) }))}
        >
          Add a count after it
        </button>
        {!alone && (
          <button
            type="button"
            className="quiet-link"
            onClick={() => change(({ counts }) => ({ counts: counts.toSpliced(index, 1) }))}
          >
            Take it out
          </button>
        )}
      </div>
    </fieldset>
  )
})
