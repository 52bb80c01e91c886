import type { FormText } from './data'

/** One of three: ours where we changed it, theirs otherwise. Texts are changed by replacing parts, so the same part is the same object. */
const pick = <T>(base: T, ours: T, theirs: T): T => (ours === base ? theirs : ours)

/**
 * Our change of a form on top of what has been saved meanwhile. What only one side touched is that side's; a position both touched is ours as a whole,
 * and so is the order when both changed it.
 */
export function mergeForms(base: FormText, ours: FormText, theirs: FormText): FormText {
  if (theirs === base) return ours
  return {
    name: pick(base.name, ours.name, theirs.name),
    parentId: pick(base.parentId, ours.parentId, theirs.parentId),
    sections: mergeLists(base.sections, ours.sections, theirs.sections),
    positions: mergeLists(base.positions, ours.positions, theirs.positions),
    segments: mergeLists(base.segments, ours.segments, theirs.segments),
    accepted: pick(base.accepted, ours.accepted, theirs.accepted),
  }
}

function mergeLists<T extends { id: string }>(base: T[], ours: T[], theirs: T[]): T[] {
  if (ours === base || theirs === base) return pick(base, ours, theirs)
  const [before, now] = [byId(base), byId(theirs)]
  const kept = ours
    // What they took out and we left alone stays out.
    .filter((item) => now.has(item.id) || !before.has(item.id) || before.get(item.id) !== item)
    .map((item) => (before.get(item.id) === item ? (now.get(item.id) ?? item) : item))
  const here = new Set(kept.map((item) => item.id))
  // What they added stands behind what it stood behind.
  return theirs
    .filter((item) => !before.has(item.id) && !here.has(item.id))
    .reduce((list, item) => {
      const ahead = theirs.slice(0, theirs.indexOf(item)).findLast((other) => list.some(({ id }) => id === other.id))
      return list.toSpliced(ahead ? list.findIndex(({ id }) => id === ahead.id) + 1 : 0, 0, item)
    }, kept)
}

const byId = <T extends { id: string }>(items: T[]) => new Map(items.map((item) => [item.id, item]))
