import type { Schema } from '../api/client'
import type { PostureFinding } from '../engine/engine'
import { FindingNote } from './FindingNote'
import type { Count } from './data'

interface PostureFindingsProps {
  findings: PostureFinding[]
  /** Which of the findings are shown here. */
  count: number
  mode: Schema['Mode']
  ourWays: Schema['OurWay'][]
  keep: (ourWays: Schema['OurWay'][]) => void
  /** The counts with some of them written anew. */
  mend: (edits: PostureFinding['mends'][number]['edits']) => void
}

/** What the checks find at one count of a posture, or of one of its versions: to be mended here, or kept with a reason. */
export function PostureFindings({ findings, count, mode, ourWays, keep, mend }: PostureFindingsProps) {
  const isOf = (finding: PostureFinding) => (way: Schema['OurWay']) =>
    way.rule === finding.rule && way.mode === mode && way.count === finding.count
  return findings
    .filter((finding) => finding.count === count)
    .map((finding) => (
      <FindingNote
        key={finding.rule + finding.message}
        severity={finding.severity}
        where={null}
        message={finding.message}
        kept={ourWays.find(isOf(finding))?.reason ?? null}
        editable
        mends={finding.mends.map(({ label, edits }) => ({ label, take: () => mend(edits) }))}
        keep={(reason) => keep([...ourWays, { rule: finding.rule, mode, count: finding.count, reason }])}
        checkAgain={() => keep(ourWays.filter((way) => !isOf(finding)(way)))}
      />
    ))
}

/** Counts with those of a mend written anew; what a mend leaves empty stays as it is. */
export const mended = (counts: Count[], edits: PostureFinding['mends'][number]['edits']) =>
  counts.map((count, at) => {
    const edit = edits.find((one) => one.count === at + 1)
    return edit ? { ...count, feet: edit.feet || count.feet, body: edit.body || count.body } : count
  })
