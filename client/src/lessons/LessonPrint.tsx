import type { Schema } from '../api/client'
import { EndShape } from '../shared/EndShape'
import { blockWords, clockTime, longDate } from '../ui/words'
import { watchWords } from './watch-words'

const whole = (seconds: number) => Math.max(1, Math.round(seconds / 60))

/** The lesson on one A4 page: blocks with minutes; counts, cues and key point of what is new; key points of what comes back; cautions and whom to watch. */
export function LessonPrint({ sheet }: { sheet: Schema['LessonSheet'] }) {
  return (
    <article className="print-only text-[7.4pt] leading-[1.28]">
      <h1 className="text-[15pt]">
        {longDate(sheet.date)} · {sheet.class}
      </h1>
      <p>
        Lesson {sheet.number} · {sheet.hall}, {clockTime(sheet.start)} to {clockTime(sheet.end)} ·{' '}
        {sheet.staff.join(', ')}
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
              {cohort.blocks
                .filter((block) => block.kind !== 'warmUp' && block.kind !== 'settle')
                .map((block, at) => (
                  <li key={at}>
                    <b>
                      {whole(block.seconds)} min {blockWords[block.kind].toLowerCase()}
                    </b>
                    {(block.kind !== 'ownPractice' || block.material.length === 1) &&
                      block.material.length > 0 &&
                      `: ${names(block)}`}
                    {block.visits > 0 && `, come by ${block.visits} times`}
                    {block.kind === 'new' && <NewPosture material={block.material[0]!} mode={cohort.mode} />}
                    {block.kind === 'review' && <span>. Key point: {block.material[0]!.keyPoint}.</span>}
                  </li>
                ))}
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

function names(block: Schema['LessonBlockResponse']): string {
  const all = block.material.map((material) => material.name)
  if (block.kind === 'runThrough') return `from the beginning to ${all.at(-1)}`
  return all.length > 2 ? `${all[0]} to ${all.at(-1)}` : all.join(', ')
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
