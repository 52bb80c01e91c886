import type { Schema } from '../api/client'
import { demandWords } from '../ui/words'

/** Why somebody is on the watch list. */
export function watchWords(watched: Schema['LessonWatchResponse']): string {
  if (watched.reason === 'secondLook') return 'second look'
  if (watched.reason === 'oneFromAlone') return 'one from alone'
  return watched.days === null ? 'never watched' : `unseen ${watched.days} days`
}

/** Who needs an easier way in which postures: a line for each person and demand. */
export function careWords(care: Schema['LessonCare'][]) {
  const same = Map.groupBy(care, (one) => `${one.student} ${one.demand}`)
  return [...same.values()].map((group) => ({ student: group[0]!.student, demand: demandWords[group[0]!.demand], postures: group.map((one) => one.posture).join(' and ') }))
}
