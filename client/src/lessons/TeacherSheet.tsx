import { SmallArrangement } from './SmallArrangement'
import { blockWords, together } from '../ui/words'
import { clockAt, idOf, type ArrangedBlock } from './arranging'
import { careIn, materialOf, wordFor, type OnPaper } from './printed'
import { Counts, NewPosture } from './PrintedPosture'
import { looksIn, looksWords, type Look } from './watch-words'

/** Whom a stand-in meets, and what they can do without anybody. */
export function WhoIsWho({ sheet, arrangement, teacher }: OnPaper & { teacher: string }) {
  const led = new Set(arrangement.blocks.filter((block) => block.ledBy === teacher).map((block) => block.cohortId))
  return (
    <div className="mt-1 border-t border-line pt-1">
      {sheet.cohorts
        .filter((cohort) => led.has(cohort.cohortId))
        .map((cohort) => (
          <p key={cohort.cohortId}>
            <b>{cohort.name}</b>
            {cohort.mode !== 'standing' && `, ${cohort.mode}`}
            {cohort.attended && ', never left alone'}: {cohort.people.join(', ')}
            {arrangement.cohorts.find((lane) => lane.id === cohort.cohortId)?.practises && (
              <> · by themselves: {arrangement.cohorts.find((lane) => lane.id === cohort.cohortId)?.practises}.</>
            )}
          </p>
        ))}
    </div>
  )
}

/** One teacher's lesson from minute to minute, to be read with one hand. */
export function Thread({ sheet, arrangement, teacher, standIn }: OnPaper & { teacher: string; standIn: boolean }) {
  const looksOf = (block: ArrangedBlock) => looksIn(arrangement.looks, block, teacher)
  // What all do together is watched by whoever does not lead it.
  const own = arrangement.blocks
    .filter((block) => block.ledBy === teacher || (block.cohortId === null && looksOf(block).length > 0))
    .toSorted((a, b) => a.start - b.start)
  /** What is new has its counts; whatever else comes again has them once, and a link has those of its postures. */
  const isFirst = (block: ArrangedBlock) =>
    !block.what.includes('→') &&
    block.kind !== 'visit' &&
    own.find((one) => one.kind !== 'visit' && one.what === block.what) === block &&
    own.every((one) => one.kind !== 'new' || one.what !== block.what)
  return (
    <>
      <SmallArrangement
        arrangement={arrangement}
        cohorts={sheet.cohorts}
        teacher={teacher}
        label="The lesson, a lane a cohort; yours stand out"
        className="mt-1 h-[17mm] w-full"
      />
      <p className="flex justify-between text-[7.5pt]">
        {[0, 15, 30, 45, 60, 75, 90, 105, 120]
          .filter((minute) => minute <= arrangement.minutes)
          .map((minute) => (
            <span key={minute}>{clockAt(sheet.start, minute)}</span>
          ))}
      </p>
      <ol
        className={`mt-2 mb-2 grid gap-x-5 leading-[1.25] [&_li]:break-inside-avoid ${standIn ? 'text-[7.8pt]' : 'text-[8.6pt]'}`}
      >
        {rowsOf(own, looksOf).map((blocks) =>
          blocks.length > 1 ? (
            <Visits key={idOf(blocks[0]!)} sheet={sheet} visits={blocks} />
          ) : (
            <Block
              key={idOf(blocks[0]!)}
              sheet={sheet}
              arrangement={arrangement}
              block={blocks[0]!}
              leads={blocks[0]!.ledBy === teacher}
              looks={looksOf(blocks[0]!)}
              counts={standIn && isFirst(blocks[0]!)}
            />
          ),
        )}
      </ol>
    </>
  )
}

/** Visits one after another in which nobody in particular is watched are one line. */
function rowsOf(own: ArrangedBlock[], looksOf: (block: ArrangedBlock) => Look[]): ArrangedBlock[][] {
  const rows: ArrangedBlock[][] = []
  const isPlain = (block: ArrangedBlock) => block.kind === 'visit' && looksOf(block).length === 0
  for (const block of own) {
    const before = rows.at(-1)
    if (before && isPlain(block) && before.every(isPlain)) before.push(block)
    else rows.push([block])
  }
  return rows
}

const row = 'grid grid-cols-[13mm_30mm_1fr] gap-2 border-t border-line py-0.5'

function Visits({ sheet, visits }: { sheet: OnPaper['sheet']; visits: ArrangedBlock[] }) {
  const nameOf = (block: ArrangedBlock) => sheet.cohorts.find((one) => one.cohortId === block.cohortId)?.name
  return (
    <li className={row}>
      <b className="tabular-nums">{clockAt(sheet.start, visits[0]!.start)}</b>
      <b>visits</b>
      <span>
        {visits
          .map((visit) => `${clockAt(sheet.start, visit.start)} ${nameOf(visit)}, ${visit.end - visit.start} min`)
          .join('; ')}
      </span>
    </li>
  )
}

/** The pieces of a warm-up with their minutes; nothing of anything else. */
const piecesOf = (block: ArrangedBlock) =>
  block.pieces.map((piece) => `${piece.what} ${piece.end - piece.start}`).join(' · ')

const pairWords = ({ groups, beside, caution }: NonNullable<ArrangedBlock['pairs']>) =>
  ` · ${[...groups.map(together), ...beside.map(({ name, why }) => `${name}: ${why}`)].join('; ')}. ${caution}`

interface BlockProps extends OnPaper {
  block: ArrangedBlock
  /** Otherwise somebody else does, and the teacher watches. */
  leads: boolean
  looks: Look[]
  /** Its counts are written out. */
  counts: boolean
}

function Block({ sheet, arrangement, block, leads, looks, counts }: BlockProps) {
  const cohort = sheet.cohorts.find((one) => one.cohortId === block.cohortId)
  const material = cohort && materialOf(cohort, block)
  const care = careIn(sheet, block)
  return (
    <li className={row}>
      <b className="tabular-nums">{clockAt(sheet.start, block.start)}</b>
      <b>{cohort?.name ?? 'everybody'}</b>
      <span>
        {cohort ? wordFor(cohort, block) : blockWords[block.kind].toLowerCase()}, {block.end - block.start} min
        {!leads && `, led by ${arrangement.teachers.find((one) => one.id === block.ledBy)?.name.split(' ')[0]}`}
        {block.kind !== 'visit' && (
          <>
            : <b>{piecesOf(block) || block.what}</b>
          </>
        )}
        {block.with.length > 0 &&
          `, with ${block.with.map((id) => arrangement.cohorts.find((one) => one.id === id)?.name).join(', ')}`}
        {block.pairs && pairWords(block.pairs)}
        {block.kind === 'new' && material && <NewPosture material={material} mode={cohort.mode} />}
        {block.kind !== 'new' && block.kind !== 'visit' && material && <> · {material.keyPoint}.</>}
        {block.kind === 'reTeach' && ` ${block.because}`}
        {counts && material && <Counts material={material} />}
        {care.length > 0 && <b> {care.map((one) => `${one.student}: ${one.how}`).join('; ')}.</b>}
        {looks.length > 0 && <i> Watch {looksWords(looks)}.</i>}
      </span>
    </li>
  )
}
