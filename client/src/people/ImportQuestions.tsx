import type { Schema } from '../api/client'
import { Option, Select } from '../ui/Select'
import type { RosterAnswers, RosterPreview } from './data'

const kinds: Partial<Record<NonNullable<Schema['RosterField']>, string>> = {
  sash: 'as a sash',
  half: 'as a half',
  class: 'as a class',
  cohort: 'as a cohort',
  mode: 'as a mode',
  aim: 'as what they come for',
  knows: 'about a form',
}

interface ImportQuestionsProps {
  preview: RosterPreview
  answers: RosterAnswers
  say: (part: Partial<RosterAnswers>) => void
}

/** What the file leaves open and nobody can guess: the order of dates, and words this school has not used before. */
export function ImportQuestions({ preview, answers, say }: ImportQuestionsProps) {
  if (!preview.asksDayFirst && answers.dayFirst === null && preview.unknown.length === 0) return null
  return (
    <section aria-label="To be said once" className="border-l-4 border-ochre-mark pl-3">
      <h2 className="text-lg">To be said once</h2>
      <ul className="mt-2 grid gap-2">
        {(preview.asksDayFirst || answers.dayFirst !== null) && (
          <li className="flex flex-wrap items-center gap-3">
            <span>The dates can be read both ways. In this file</span>
            <Select
              label="Order of day and month"
              value={answers.dayFirst === null ? '' : answers.dayFirst ? 'day' : 'month'}
              onChange={(order) => say({ dayFirst: order === 'day' })}
            >
              {answers.dayFirst === null && <Option value="">say which</Option>}
              <Option value="day">the day comes first</Option>
              <Option value="month">the month comes first</Option>
            </Select>
          </li>
        )}
        {preview.unknown.map((unknown) => (
          <li key={unknown.field + unknown.word} className="flex flex-wrap items-center gap-3">
            <span>
              <b>{unknown.word}</b> {kinds[unknown.field!] ?? 'as an agreement'} ({unknown.lines}{' '}
              {unknown.lines === 1 ? 'line' : 'lines'}) means
            </span>
            <Select
              label={`Meaning of the word ${unknown.word}`}
              value=""
              onChange={(meaning) =>
                say({ words: [...answers.words, { field: unknown.field, word: unknown.word, meaning }] })
              }
            >
              <Option value="">say what</Option>
              {unknown.choices.map((choice) => (
                <Option key={choice.meaning} value={choice.meaning}>
                  {choice.name}
                </Option>
              ))}
            </Select>
          </li>
        ))}
      </ul>
    </section>
  )
}
