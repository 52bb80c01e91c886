import type { Schema } from '../api/client'

/** Why somebody is on the watch list. */
export function watchWords(watched: Schema['LessonWatchResponse']): string {
  if (watched.reason === 'secondLook') return 'second look'
  if (watched.reason === 'oneFromAlone') return 'one from alone'
  return watched.days === null ? 'never watched' : `unseen ${watched.days} days`
}
