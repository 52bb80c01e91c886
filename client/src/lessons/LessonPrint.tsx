import type { Schema } from '../api/client'
import { EndShape } from '../shared/EndShape'
import { blockWords, clockTime, longDate } from '../ui/words'
import type { Arrangement } from './arranging'
import { clockAt } from './ArrangementPicture'
import { watchWords } from './watch-words'

/** The lesson on one A4 page: blocks with minutes; counts, cues and key point of what is new; key points of what comes back; cautions and whom to watch. */
export function LessonPrint({ sheet, arrangement }: { sheet: Schema['LessonSheet']; arrangement?: Arrangement }) {
  const leader = (id: string | null) => arrangement?.teachers.find((one) => one.id === id)?.name.split(' ')[0] ?? ''
  const everybody = arrangement?.blocks.filter((block) => block.cohortId === null) ?? []
  return (
    <article className="print-only text-[7.4pt] leading-[1.28]">
      <h1 className="text-[15pt]">
        {longDate(sheet.date)} · {sheet.class}
      </h1>
      <p>
        Lesson {sheet.number} · {sheet.hall}, {clockTime(sheet.start)} to {clockTime(sheet.end)} ·{' '}
        {sheet.staff.join(', ')}
      </p>
      <p className="mt-1">
        <b>Everybody:</b>{' '}
        {everybody
          .map(
            (block) =>
              `${clockAt(sheet.start, block.start)} ${blockWords[block.kind].toLowerCase()}, ${block.end - block.start} min, ${leader(block.ledBy)}`,
          )
          .join('; ')}
        .
      </p>
      <div className="mt-2 columns-2 gap-5">
        {sheet.cohorts.map((cohort) => (
          <section
            key={cohort.cohortId}
            className="mb-2 border-t border-line pt-1 [&_h2]:break-after-avoid [&_li]:break-inside-avoid"
          >
            <h2 className="text-[10.5pt]">
              {cohort.name}
              {cohort.mode !== 'standing' && `, ${cohort.mode}`}
              {cohort.attended && ', never left alone'}
            </h2>
            <ul>
              {arrangement?.blocks
                .filter((block) => block.cohortId === cohort.cohortId && block.kind !== 'ownPractice')
                .map((block) => {
                  const material = cohort.blocks
                    .flatMap((one) => one.material)
                    .find(
                      (one) => one.postureId === block.material[0]?.postureId && one.side === block.material[0].side,
                    )
                  return (
                    <li key={`${block.kind} ${block.start}`}>
                      <b>
                        {clockAt(sheet.start, block.start)}{' '}
                        {block.kind === 'visit' && cohort.attended
                          ? 'own practice'
                          : blockWords[block.kind].toLowerCase()}
                      </b>
                      , {block.end - block.start} min, {leader(block.ledBy)}
                      {block.kind !== 'visit' && `: ${block.what}`}
                      {block.kind === 'new' && material && <NewPosture material={material} mode={cohort.mode} />}
                      {block.kind === 'review' && material && <span>. Key point: {material.keyPoint}.</span>}
                    </li>
                  )
                })}
            </ul>
          </section>
        ))}
      </div>
      <p className="border-t border-line pt-1">
        <b>Whom to watch:</b>{' '}
        {sheet.watch.map((watched) => `${watched.student} in ${watched.posture} (${watchWords(watched)})`).join('; ')}.
      </p>
      {sheet.care.length > 0 && (
        <p>
          <b>Otherwise:</b> {sheet.care.map((care) => care.says).join('; ')}.
        </p>
      )}
      <p className="mt-1 border-t border-line pt-1">
        {[...new Set([...sheet.cohorts.flatMap((cohort) => cohort.cautions), ...sheet.cautions])].join(' ')}
      </p>
    </article>
  )
}

function NewPosture({ material, mode }: { material: Schema['LessonMaterial']; mode: string }) {
  return (
    <div className="mb-0.5 border-l-2 border-line pl-2">
      <span className="float-right ml-2">
        <EndShape postureId={material.postureId} side={material.side} mode={mode} className="h-[13mm]" />
      </span>
      <b>Key point: {material.keyPoint}.</b> {material.cues.map((cue, at) => `${at + 1} ${cue}`).join('; ')}. Likely:{' '}
      {material.faults[0]}. {material.cautions.join(' ')}
    </div>
  )
}
