import type { Schema } from '../api/client'

export type Look = Schema['ArrangementLookAt']

/** Why somebody is looked at. */
export function watchWords({ reason, days }: Look): string {
  switch (reason) {
    case 'secondLook':
      return 'second look'
    case 'oneFromAlone':
      return 'one from alone'
    case 'overlooked':
      return 'not seen last time'
    case 'inTurn':
      return `seen ${days} days ago`
    case 'longUnseen':
      return days === null ? 'never watched' : `unseen ${days} days`
  }
}

/** Whom a teacher looks at in a block; whoever leads it, where nobody else is named. */
export const looksIn = (
  looks: Look[],
  block: { start: number; cohortId: string | null; ledBy: string | null },
  teacherId = block.ledBy,
) =>
  looks.filter(
    (look) =>
      look.start === block.start &&
      look.teacherId === teacherId &&
      (block.cohortId === null || look.cohortId === block.cohortId),
  )

/** "Ilse B. (second look), Per D. in Push, right; Imke R. in Press, right": who is only in their turn needs no reason. */
export const looksWords = (looks: Look[]) =>
  [...new Set(looks.map((look) => look.posture))]
    .map(
      (posture) =>
        `${looks
          .filter((look) => look.posture === posture)
          .map((look) => (look.reason === 'inTurn' ? look.student : `${look.student} (${watchWords(look)})`))
          .join(', ')} in ${posture}`,
    )
    .join('; ')

type FaultsOf = Pick<Schema['RegisterItem'], 'acceptedFaults' | 'besideFocus'>

/** Why a known fault is recorded and not called; undefined where it is called. */
export const notedBecause = (item: FaultsOf, fault: Schema['Fault']) =>
  item.acceptedFaults.includes(fault.id)
    ? 'still accepted at this level'
    : item.besideFocus.includes(fault.id)
      ? 'beside the focus'
      : undefined

/** A known fault as it is marked. */
export const callOf = (
  item: FaultsOf,
  fault: Schema['Fault'],
): [Partial<Schema['RegisterMark']>, Schema['RegisterMark']['sign']] => [
  { faultId: fault.id, words: fault.seen, weight: fault.weight },
  notedBecause(item, fault) ? 'noted' : 'fault',
]
