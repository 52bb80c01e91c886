import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { SmallFigure } from '../shared/SmallFigure'
import { useWays } from '../shared/ways'
import { Choice } from '../ui/Field'
import { Dial } from '../ui/Dial'
import { Option } from '../ui/Select'
import { blockWords, together } from '../ui/words'
import { leaders, type Arranging } from './ArrangingByHand'
import { clockAt, halved, type ArrangedBlock, type Arrangement } from './arranging'
import { looksIn, looksWords } from './watch-words'

interface BlockWordsProps {
  block: ArrangedBlock
  arrangement: Arrangement
  /** Undefined for what holds everybody. */
  cohort: Schema['LessonCohortSheet'] | undefined
  /** When the lesson begins. */
  start: string
  arranging: Arranging
}

/** A block in words: when, who leads it and why it is there, and what is said and done in it. */
export function BlockWords({ block, arrangement, cohort, start, arranging }: BlockWordsProps) {
  const { say } = useWays()
  const leader = arrangement.teachers.find((teacher) => teacher.id === block.ledBy)
  const visits = arrangement.blocks.filter(
    (one) =>
      one.kind === 'visit' && one.cohortId === block.cohortId && one.start >= block.start && one.end <= block.end,
  )
  const watched = looksIn(arrangement.looks, block)
  const known = cohort?.material ?? []
  const material = block.material.flatMap(
    (of) => known.find((one) => one.postureId === of.postureId && one.side === of.side) ?? [],
  )
  const single = material.length === 1 ? material[0] : undefined
  return (
    <section aria-label="The chosen block" aria-live="polite">
      <h2 className="text-lg">{(block.pieces.length === 0 && block.what) || blockWords[block.kind]}</h2>
      <p className="text-soft">
        {cohort ? cohort.name : 'Everybody'} · {blockWords[block.kind].toLowerCase()} · {clockAt(start, block.start)} to{' '}
        {clockAt(start, block.end)}, {block.end - block.start} min
        {leader ? ` · ${leader.name} leads` : ''}
        {block.with.length > 0 &&
          ` · with ${block.with.map((id) => arrangement.cohorts.find((one) => one.id === id)?.name).join(', ')}`}
      </p>
      <p>{block.because}</p>
      {block.pairs && <Pairs pairs={block.pairs} />}
      <WarmUpPieces pieces={block.pieces} start={start} />
      {visits.map((visit) => {
        const looks = looksIn(arrangement.looks, visit)
        return (
          <p key={visit.start} className="text-soft">
            {arrangement.teachers.find((teacher) => teacher.id === visit.ledBy)?.name} comes by at{' '}
            {clockAt(start, visit.start)} for {visit.end - visit.start} min
            {looks.length > 0 && `: watch ${looksWords(looks)}`}.
          </p>
        )
      })}
      {watched.length > 0 && <p>Watch {looksWords(watched)}.</p>}
      {arranging.may && block.task && <Hands block={block} arrangement={arrangement} arranging={arranging} />}
      {arranging.may && canLast(block) && <HandsOnAll block={block} arranging={arranging} />}
      {single && (
        <>
          <p className="mt-2 border-l-4 border-lacquer pl-3">
            <b>Key point</b> {single.keyPoint}
          </p>
          <div className="mt-2 flex items-start justify-between gap-4">
            <ol className="grid gap-1">
              {single.cues.map((cue, at) => (
                <li key={at} className="grid grid-cols-[22px_1fr]">
                  <span className="font-serif font-bold">{at + 1}</span> {cue}
                </li>
              ))}
            </ol>
            <SmallFigure
              postureId={single.postureId}
              side={single.side}
              mode={cohort!.mode}
              sash={cohort!.colour}
              label={`${single.name}, how it ends`}
              className="h-28 shrink-0"
            />
            {single.facing !== null && (
              <span className="text-center text-small text-soft">
                <Dial facing={single.facing} said={say(single.facing)} size={38} />
                ends here
              </span>
            )}
          </div>
          <p className="mt-2">
            <b>Likely:</b> {single.faults.slice(0, 2).join('; ')}.
          </p>
          {single.cautions.map((caution) => (
            <p key={caution} className="mt-1 border-l-4 border-ochre-mark pl-3">
              {caution}
            </p>
          ))}
        </>
      )}
      {!single &&
        material.slice(-3).map((one) => (
          <div key={one.postureId + one.side} className="mt-2">
            <h3 className="text-base">{one.name}</h3>
            <p className="border-l-4 border-lacquer pl-3">
              <b>Key point</b> {one.keyPoint}
            </p>
          </div>
        ))}
    </section>
  )
}

/** Who works with whom, and who beside. */
function Pairs({ pairs }: { pairs: NonNullable<ArrangedBlock['pairs']> }) {
  return (
    <>
      {pairs.groups.length === 0 && <p className="font-semibold">Nobody can be paired tonight.</p>}
      <ul aria-label="Who works with whom" className="my-2 grid gap-1">
        {pairs.groups.map((group) => (
          <li key={group.join()} className="font-semibold">
            {together(group)}
          </li>
        ))}
        {pairs.beside.map(({ name, why }) => (
          <li key={name} className="text-soft">
            {name}: {why}
          </li>
        ))}
      </ul>
      <p className="border-l-4 border-ochre-mark pl-3">{pairs.caution}</p>
    </>
  )
}

/** What a warm-up is made of, from minute to minute. */
function WarmUpPieces({ pieces, start }: { pieces: ArrangedBlock['pieces']; start: string }) {
  if (pieces.length === 0) return null
  return (
    <ol aria-label="Pieces of the warm-up" className="my-2 grid gap-1">
      {pieces.map((piece) => (
        <li key={piece.start} className="grid grid-cols-[52px_1fr] gap-2">
          <span className="text-soft tabular-nums">{clockAt(start, piece.start)}</span>
          {piece.drillId ? (
            <Link className="quiet-link justify-self-start" to={`/forms/postures/${piece.drillId}`}>
              {piece.what}
            </Link>
          ) : (
            piece.what
          )}
        </li>
      ))}
    </ol>
  )
}

/** What everybody does, but for minutes that were lost. */
const canLast = (block: ArrangedBlock) => block.cohortId === null && block.kind !== 'rest'

/** What everybody does together is as long as the evening wants it. */
function HandsOnAll({ block, arranging }: { block: ArrangedBlock; arranging: Arranging }) {
  const minutes = block.end - block.start
  const lasts = (minutes: number) => arranging.edit({ kind: 'everybody', does: block.kind, minutes })
  return (
    <div className="my-2 flex flex-wrap items-end gap-2">
      <button
        type="button"
        className="button"
        disabled={arranging.busy || minutes < 2}
        onClick={() => lasts(minutes - 1)}
      >
        Shorter
      </button>
      <button type="button" className="button" disabled={arranging.busy} onClick={() => lasts(minutes + 1)}>
        Longer
      </button>
      <button type="button" className="quiet-link pb-2" disabled={arranging.busy} onClick={() => lasts(0)}>
        Not tonight
      </button>
    </div>
  )
}

/** The same that keys and dragging do, for whoever uses neither. */
function Hands({
  block,
  arrangement,
  arranging,
}: {
  block: ArrangedBlock
  arrangement: Arrangement
  arranging: Arranging
}) {
  const minutes = block.end - block.start
  return (
    <div className="my-2 flex flex-wrap items-end gap-2">
      <button
        type="button"
        className="button"
        disabled={arranging.busy}
        onClick={() => arranging.pin(block, { start: block.start - 1 })}
      >
        Earlier
      </button>
      <button
        type="button"
        className="button"
        disabled={arranging.busy}
        onClick={() => arranging.pin(block, { start: block.start + 1 })}
      >
        Later
      </button>
      <button
        type="button"
        className="button"
        disabled={arranging.busy || minutes < 2}
        onClick={() => arranging.edit({ kind: 'stretch', key: block.task!, minutes: minutes - 1 })}
      >
        Shorter
      </button>
      <button
        type="button"
        className="button"
        disabled={arranging.busy}
        onClick={() => arranging.edit({ kind: 'stretch', key: block.task!, minutes: minutes + 1 })}
      >
        Longer
      </button>
      <button
        type="button"
        className="button"
        disabled={arranging.busy || minutes < 2}
        onClick={() => arranging.edit(halved(block))}
      >
        Split
      </button>
      <Choice label="Led by" value={block.ledBy ?? ''} onChange={(teacherId) => arranging.pin(block, { teacherId })}>
        {leaders(arrangement, block).map((teacher) => (
          <Option key={teacher.id} value={teacher.id}>
            {teacher.name}
          </Option>
        ))}
      </Choice>
      <button
        type="button"
        className="quiet-link pb-2"
        disabled={arranging.busy}
        onClick={() =>
          block.fixed
            ? arranging.edit({ kind: 'free', key: block.task! })
            : arranging.pin(block, { start: block.start, teacherId: block.ledBy })
        }
      >
        {block.fixed ? 'Let it go' : 'Fix it here'}
      </button>
      <button
        type="button"
        className="quiet-link pb-2"
        disabled={arranging.busy}
        onClick={() => arranging.edit({ kind: 'takeOut', key: block.task! })}
      >
        Leave it for another lesson
      </button>
    </div>
  )
}
