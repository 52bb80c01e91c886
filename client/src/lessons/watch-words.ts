import type { Schema } from '../api/client'

/** Why somebody is on the watch list. */
export function watchWords(watched: Schema['LessonWatchResponse']): string {
  if (watched.reason === 'secondLook') return 'second look'
  if (watched.reason === 'oneFromAlone') return 'one from alone'
  return watched.days === null ? 'never watched' : `unseen ${watched.days} days`
}

/** A known fault as it is marked: what the level still accepts is noted, and not called. */
export function callOf(
  item: Pick<Schema['RegisterItem'], 'acceptedFaults'>,
  fault: Schema['Fault'],
): [Partial<Schema['RegisterMark']>, Schema['RegisterMark']['sign']] {
  const rest = { faultId: fault.id, words: fault.seen, weight: fault.weight }
  return [rest, item.acceptedFaults.includes(fault.id) ? 'noted' : 'fault']
}
