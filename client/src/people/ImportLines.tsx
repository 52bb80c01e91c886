import type { ReactNode } from 'react'
import type { Schema } from '../api/client'
import type { RosterAnswers, RosterPreview } from './data'

const fates: Record<Schema['RosterFate'], string> = {
  added: 'added',
  changed: 'changed',
  same: 'as it is',
  twice: 'stands twice',
  refused: 'refused',
  asked: 'asked about',
  leftOut: 'left out',
}

const looks: Partial<Record<Schema['RosterFate'], string>> = {
  added: 'font-semibold text-pine',
  changed: 'font-semibold text-pine',
  refused: 'text-lacquer',
  asked: 'text-ochre',
}

/** So many are drawn; more nobody reads. */
const MOST = 400

const counted = (items: Schema['RosterItem'][]) =>
  (Object.keys(fates) as Schema['RosterFate'][])
    .map((fate) => [items.filter((item) => item.fate === fate).length, fates[fate]] as const)
    .filter(([count]) => count > 0)
    .map(([count, word]) => `${count} ${word}`)
    .join(', ') || 'No lines'

interface ImportLinesProps {
  preview: RosterPreview
  answers: RosterAnswers
  say: (part: Partial<RosterAnswers>) => void
  /** What can be done with all of it. */
  children: ReactNode
}

/** What is wrong and where, and what would become of every line; one that cannot be put right now can be left out. */
export function ImportLines({ preview, answers, say, children }: ImportLinesProps) {
  const { problems, items } = preview
  // What is open stands first: nobody looks for the one bad line among a thousand good ones.
  const shown = [...items.filter(isOpen), ...items.filter((item) => !isOpen(item))].slice(0, MOST)
  return (
    <>
      {problems.length > 0 && (
        <section role="alert" aria-label="To be put right" className="border-l-4 border-lacquer pl-3">
          <p className="font-semibold">
            {problems.length === 1 ? '1 thing has' : `${problems.length} things have`} to be put right: in the file,
            above, or by leaving the line out. Nothing is imported until then.
          </p>
          <ul className="max-h-56 overflow-y-auto">
            {problems.slice(0, 200).map((problem) => (
              <li key={problem.line + problem.column + problem.message}>
                <b>
                  Line {problem.line}
                  {problem.column && `, ${problem.column}`}:
                </b>{' '}
                {problem.message}
              </li>
            ))}
          </ul>
        </section>
      )}
      <section aria-label="What would change">
        <div className="flex flex-wrap items-center gap-4">
          <h2 className="text-lg">{counted(items)}</h2>
          {children}
        </div>
        <div className="mt-2 max-h-96 overflow-y-auto border border-line bg-paper">
          <table className="w-full border-collapse">
            <tbody>
              {shown.map((item) => (
                <tr key={item.line} className="border-b border-fine">
                  <td className="w-12 px-3 py-1 text-right text-soft">{item.line}</td>
                  <th scope="row" className="w-64 px-3 py-1 text-left font-semibold">
                    {item.name}
                  </th>
                  <td className={`w-32 px-3 py-1 ${looks[item.fate] ?? 'text-soft'}`}>{fates[item.fate]}</td>
                  <td className="px-3 py-1 text-soft">
                    {item.changes.join('; ')}
                    <Ways item={item} answers={answers} say={say} />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        {items.length > MOST && <p className="mt-1 text-soft">and {items.length - MOST} more lines</p>}
      </section>
    </>
  )
}

const isOpen = ({ fate }: Schema['RosterItem']) => fate === 'refused' || fate === 'asked' || fate === 'leftOut'

function Ways({ item, answers, say }: { item: Schema['RosterItem'] } & Pick<ImportLinesProps, 'answers' | 'say'>) {
  const { line } = item
  const way = (name: string, part: Partial<RosterAnswers>) => (
    <button
      key={name}
      type="button"
      className="quiet-link ml-4"
      aria-label={`${name}: line ${line}, ${item.name}`}
      onClick={() => say(part)}
    >
      {name}
    </button>
  )
  const leaveOut = way('Leave it out', { leftOut: [...answers.leftOut, line] })
  if (item.fate === 'refused') return leaveOut
  if (item.fate === 'leftOut')
    return way('Take it in again', { leftOut: answers.leftOut.filter((other) => other !== line) })
  if (item.fate !== 'asked') return null
  return (
    <>
      {way('The same person', { samePerson: [...answers.samePerson, line] })}
      {way('Somebody else', { anotherPerson: [...answers.anotherPerson, line] })}
      {leaveOut}
    </>
  )
}
