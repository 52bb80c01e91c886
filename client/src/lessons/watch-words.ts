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

/** Whom somebody looks at in a block, and at what; of a teacher's thread there is one such block at a time. */
export const looksIn = (looks: Look[], block: { start: number; cohortId: string | null; ledBy: string | null }) =>
  looks.filter(
    (look) =>
      look.start === block.start &&
      look.teacherId === block.ledBy &&
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

/** A known fault as it is marked: what the level still accepts is noted, and not called. */
export function callOf(
  item: Pick<Schema['RegisterItem'], 'acceptedFaults'>,
  fault: Schema['Fault'],
): [Partial<Schema['RegisterMark']>, Schema['RegisterMark']['sign']] {
  const rest = { faultId: fault.id, words: fault.seen, weight: fault.weight }
  return [rest, item.acceptedFaults.includes(fault.id) ? 'noted' : 'fault']
}
