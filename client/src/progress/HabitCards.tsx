import type { Schema } from '../api/client'
import { CorrectionCard } from './CorrectionCard'
import type { useAgainst, useTried } from './use-tried'

interface WhoseProps {
  student: { studentId: string; student: string }
  seen: ReturnType<typeof useAgainst>
}

interface HabitCardProps extends WhoseProps {
  habit: Schema['CorrectionViewsHabitResponse']
}

/** The same principle broken in several postures: one thing to teach instead of several. */
export function HabitCard({ habit, student, seen }: HabitCardProps) {
  return (
    <div className="rounded-lg bg-floorboard px-3 py-2">
      <p>
        <b>A habit: {habit.principle}.</b> Correct this one thing: {habit.keyPoint}.
      </p>
      <p className="text-soft">{habit.where.join('; ')}.</p>
      {seen && (
        <button
          type="button"
          className="quiet-link"
          onClick={() => seen({ ...student, ...habit }, 'fault', habit.weight)}
        >
          Make it one correction
        </button>
      )}
    </div>
  )
}

interface AgainstCardProps extends WhoseProps {
  against: Schema['CorrectionViewsAgainstResponse']
  /** Corrections of single postures that are part of it. */
  parts?: readonly { name: string; correction: { words: string } }[]
  tried: ReturnType<typeof useTried>
  wide?: boolean
}

/** One correction against a principle, wherever it is seen. */
export function AgainstCard({ against, parts = [], student, seen, tried, wide = false }: AgainstCardProps) {
  const { principle, principleId, postureId, side, correction } = against
  const say = (sign: 'better' | 'fine') => seen?.({ ...student, ...against }, sign, null)
  return (
    <CorrectionCard
      about={`${principle}, in every posture`}
      wide={wide}
      correction={{ ...correction, words: against.keyPoint }}
      below={
        <>
          {parts.length > 0 && (
            <p className="text-soft">
              {parts.map(({ name, correction }) => `${name}: ${correction.words}`).join('; ')}.
            </p>
          )}
          {seen && correction.state !== 'cleared' && (
            <p className="flex gap-4">
              <button type="button" className="quiet-link" onClick={() => say('better')}>
                Better
              </button>
              <button type="button" className="quiet-link" onClick={() => say('fine')}>
                Kept
              </button>
            </p>
          )}
        </>
      }
      tried={tried?.({ ...student, postureId, side, from: null, name: principle, principleId }, correction)}
    />
  )
}
