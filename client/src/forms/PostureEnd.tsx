import { memo } from 'react'
import { useEngine, type PostureFinding } from '../engine/engine'
import { Choice, Field, NumberField } from '../ui/Field'
import { Option } from '../ui/Select'
import type { ChangePosture, PostureText } from './data'
import { NotationField } from './NotationField'
import { PostureFindings, mended } from './PostureFindings'

const stances = {
  bow: 'bow',
  empty: 'empty',
  horse: 'horse',
  tStep: 'T-step',
  oneLeg: 'one leg',
  drop: 'drop',
  crossed: 'crossed',
  v: 'V',
  parallel: 'parallel',
  followStep: 'follow-step',
} as const

/** How it is meant to end; the steps have to bear it out. */
export const EndFields = memo(function EndFields({
  end,
  writtenSide,
  change,
}: Pick<PostureText, 'end' | 'writtenSide'> & { change: ChangePosture }) {
  return (
    <fieldset className="grid grid-cols-3 gap-3">
      <legend className="mb-1 font-semibold">It is meant to end in</legend>
      <Choice
        label="Stance"
        value={end?.stance ?? ''}
        onChange={(stance) =>
          change({
            end: stance
              ? {
                  stance: stance,
                  leading: end?.leading ?? writtenSide,
                  leftLoad: end?.leftLoad ?? 50,
                }
              : null,
          })
        }
      >
        <Option value="">not said</Option>
        {Object.entries(stances).map(([value, name]) => (
          <Option key={value} value={value}>
            {name}
          </Option>
        ))}
      </Choice>
      {end && (
        <>
          <Choice
            label="Leading foot"
            value={end.leading}
            onChange={(leading) => change({ end: { ...end, leading: leading } })}
          >
            <Option value="left">left</Option>
            <Option value="right">right</Option>
            <Option value="symmetric">neither</Option>
          </Choice>
          <NumberField
            label="% on the left"
            value={end.leftLoad}
            onChange={(load) => change({ end: { ...end, leftLoad: load ?? 0 } })}
          />
        </>
      )}
    </fieldset>
  )
})

/** How it is practised from side to side. */
export const LoopFields = memo(function LoopFields({
  loop,
  after,
  chosen,
  choose,
  findings,
  ourWays,
  change,
  at,
}: Pick<PostureText, 'loop' | 'ourWays'> & {
  /** The last of the counts it comes back from. */
  after: number
  chosen: boolean
  choose: (count: number) => void
  findings: PostureFinding[]
  change: ChangePosture
  at: (field: string) => string | undefined
}) {
  const engine = useEngine().data
  return loop ? (
    <fieldset
      className={`grid gap-2 rounded-lg border p-3 ${chosen ? 'border-pine' : 'border-line'}`}
      onFocus={() => choose(after + 1)}
    >
      <legend className="px-1 font-serif text-base font-semibold">As a loop, from side to side</legend>
      <Field
        label="What is called in between"
        value={loop.cue}
        onChange={(cue) => change({ loop: { ...loop, cue } })}
      />
      <NotationField
        label="The return: from its end to its other side’s beginning"
        value={loop.return}
        onChange={(text) => change({ loop: { ...loop, return: text } })}
        notation={engine?.steps}
        error={at('loop.return')}
      />
      <NotationField
        label="Hands, trunk and gaze meanwhile"
        value={loop.body}
        onChange={(body) => change({ loop: { ...loop, body } })}
        notation={engine?.body}
        error={at('loop.body')}
      />
      <PostureFindings
        findings={findings}
        count={after + 1}
        mode="standing"
        ourWays={ourWays}
        keep={(kept) => change({ ourWays: kept })}
        mend={(edits) => {
          const back = edits.find(({ count }) => count === after + 1)
          change(({ counts }) => ({
            counts: mended(counts, edits),
            loop: { ...loop, return: back?.feet || loop.return, body: back?.body || loop.body },
          }))
        }}
      />
      <button type="button" className="quiet-link justify-self-start" onClick={() => change({ loop: null })}>
        It is not practised as a loop
      </button>
    </fieldset>
  ) : (
    <button
      type="button"
      className="button justify-self-start"
      onClick={() => change({ loop: { cue: 'the other side', return: '', body: '' } })}
    >
      Practise it as a loop
    </button>
  )
})
