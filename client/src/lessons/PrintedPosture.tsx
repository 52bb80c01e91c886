import type { Schema } from '../api/client'
import { SmallFigure } from '../shared/SmallFigure'

/** Something new as it stands on a sheet. */
export function NewPosture({ material, mode }: { material: Schema['LessonMaterial']; mode: string }) {
  return (
    <div className="mb-0.5 border-l-2 border-line pl-2">
      <span className="float-right ml-2">
        <SmallFigure postureId={material.postureId} side={material.side} mode={mode} className="h-[13mm]" />
      </span>
      <b>Key point: {material.keyPoint}.</b>
      <Counts material={material} /> {material.cautions.join(' ')}
    </div>
  )
}

/** What is called in it, and what likely goes wrong. */
export function Counts({ material }: { material: Schema['LessonMaterial'] }) {
  return (
    <>
      {' '}
      {material.cues.map((cue, at) => `${at + 1} ${cue}`).join('; ')}. Likely: {material.faults[0]}.
    </>
  )
}
