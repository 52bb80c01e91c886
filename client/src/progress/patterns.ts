import type { Schema } from '../api/client'
import { counted, dayMonth } from '../ui/words'

export type Pattern = Schema['PatternsPattern']
export type Kind = 'all' | 'comesBack' | 'oneCohort' | 'unlooked' | 'mended'

/** What names a fault among the others. */
export const keyOf = ({ postureId, fromId, faultId, words }: Pattern) =>
  `${postureId}${fromId ?? ''}${faultId ?? words}`

export const isOf = (pattern: Pattern, kind: Kind) =>
  kind === 'all' ||
  (kind === 'comesBack' && pattern.waves.length > 0) ||
  (kind === 'oneCohort' && pattern.onlyIn !== null) ||
  (kind === 'unlooked' && pattern.unlooked > 0) ||
  (kind === 'mended' && pattern.mendedBy !== null)

const month = (date: string) =>
  new Date(`${date}T00:00:00Z`).toLocaleDateString('en-GB', { month: 'long', timeZone: 'UTC' })

/** What the years say of it, in words; nothing where they say nothing. */
export function saidOf(pattern: Pattern): string[] {
  const { waves, sameSeason, onlyIn, mendedBy, unlooked } = pattern
  return [
    ...(waves.length === 0
      ? []
      : sameSeason
        ? [`comes back around ${month(waves.at(-1)!)}`]
        : [`has come ${times(waves.length)}`]),
    ...(onlyIn ? [`sits in ${onlyIn}`] : []),
    ...(mendedBy ? [`nobody new since ${dayMonth(mendedBy)}, when it was changed`] : []),
    ...(unlooked > 0 ? [`in ${counted(unlooked, 'person', 'people')} nobody has looked for six weeks`] : []),
  ]
}

export const times = (count: number) => (count === 1 ? 'once' : count === 2 ? 'twice' : `${count} times`)
