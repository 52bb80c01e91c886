import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schema } from '../api/client'
import { rulesQuery, useWays } from '../shared/ways'
import { demandWords, minutesOf } from '../ui/words'
import { numbersQuery, type Form, type Position } from './data'
import { Option, Select } from '../ui/Select'
import { Checkbox } from '../ui/Checkbox'
import { decimal } from '../ui/writing'

type Repeats = Schema['RepeatCount']

export const repeatWords: Record<Repeats, string> = {
  each: 'each time',
  once: 'once',
  eachStep: 'each step',
  eachPair: 'each pair',
}

/** What a form consists of, what it asks of a body along the way, and its numbers beside another book's. */
export function AnalysisView({
  form,
  chosen,
  choose,
}: {
  form: Form
  chosen: Position | undefined
  choose: (position: Position) => void
}) {
  const { text, study, derivation } = form
  const { analysis } = study
  const rules = useQuery(rulesQuery()).data
  const nameOf = (id: string) => study.positions.find((one) => one.id === id)?.name
  const facts: [string, string][] = [
    ['Positions', `${analysis.positions}, of them ${analysis.repeated} done before on the same side`],
    ['Different postures', `${analysis.postures}, ${analysis.bothSides} of them on both sides`],
    ['Different links', `${analysis.links}`],
    [
      'A run-through',
      `${minutesOf(Math.round(analysis.runThroughSeconds / 6) * 6)} at ${rules?.smoothSeconds ?? '…'} s a count`,
    ],
    [
      'Floor',
      `${decimal(study.floor.need.reach.right - study.floor.need.reach.left)} × ${decimal(study.floor.need.reach.front - study.floor.need.reach.back)} m with arms; travels ${decimal(study.floor.need.travelled)} m`,
    ],
    [
      'Comes home',
      `closes ${decimal(study.floor.need.fromHome)} m from where it began${analysis.homeTurn === 0 ? ', facing its beginning' : `, ${Math.abs(analysis.homeTurn)}° from its beginning`}`,
    ],
  ]
  return (
    <div className="grid min-h-0 flex-1 content-start gap-6 overflow-y-auto bg-paper p-5">
      <dl className="grid max-w-3xl grid-cols-[160px_1fr] gap-y-1">
        {facts.map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="font-semibold">{name}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
      {derivation && (
        <section>
          <h2 className="text-lg">Derived from its parent</h2>
          <p className="max-w-3xl">
            {derivation.leftOut.length === 1 ? '1 position is' : `${derivation.leftOut.length} positions are`} left out
            {derivation.reordered.length > 0 && <>; in another place: {derivation.reordered.map(nameOf).join(', ')}</>}
            {derivation.sidesAdded.length > 0 && (
              <>; sides the parent does not have: {derivation.sidesAdded.map(nameOf).join(', ')}</>
            )}
            {derivation.newLinks.length > 0 && <>; new links into {derivation.newLinks.map(nameOf).join(', ')}</>}.
          </p>
        </section>
      )}
      <DemandStrip form={form} chosen={chosen} choose={choose} />
      <NumberTable form={form} chosen={chosen} choose={choose} />
      {text.positions.length === 0 && <p className="text-soft">There is nothing to count yet.</p>}
    </div>
  )
}

/** The demands of a form along its positions: a row each, a mark where it is asked for. */
function DemandStrip({
  form,
  chosen,
  choose,
}: {
  form: Form
  chosen: Position | undefined
  choose: (position: Position) => void
}) {
  const { text, study } = form
  return (
    <section>
      <h2 className="text-lg">What it asks of a body</h2>
      <div className="mt-2 overflow-x-auto">
        <table className="border-collapse">
          <tbody>
            {study.analysis.demands.map((share) => (
              <tr key={share.demand}>
                <th scope="row" className="sticky left-0 bg-paper pr-3 text-left font-normal whitespace-nowrap">
                  {demandWords[share.demand]} <span className="text-soft">{share.positions}</span>
                </th>
                {study.positions.map((about, at) => (
                  <td
                    key={about.id}
                    className={`h-6 border-l p-0 ${at > 0 && text.positions[at]!.sectionId !== text.positions[at - 1]!.sectionId ? 'border-l-ink' : 'border-l-fine'} ${about.id === chosen?.id ? 'bg-pine-tint' : ''}`}
                  >
                    <button
                      type="button"
                      tabIndex={-1}
                      className="block h-6 w-2.5"
                      title={`${about.number ?? '–'} ${about.name}`}
                      onClick={() => choose(text.positions[at]!)}
                    >
                      {about.demands.includes(share.demand) ? (
                        <span className="mx-auto block h-4 w-1.5 rounded-sm bg-pine" />
                      ) : null}
                      <span className="sr-only">
                        {about.demands.includes(share.demand) ? `${about.name} asks for it` : ''}
                      </span>
                    </button>
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  )
}

/** The school's numbers, each switch turned the other way, and a book's own choice of all three. */
function NumberTable({
  form,
  chosen,
  choose,
}: {
  form: Form
  chosen: Position | undefined
  choose: (position: Position) => void
}) {
  const { text, study } = form
  const { ways } = useWays()
  const own = ways?.numbering
  const [book, setBook] = useState<Schema['NumberingSwitches']>({
    compoundAsOne: false,
    repeats: 'once',
    endsCounted: false,
  })
  const compound = useQuery(numbersQuery(form, own && { ...own, compoundAsOne: !own.compoundAsOne }))
  const repeats = useQuery(numbersQuery(form, own && { ...own, repeats: own.repeats === 'once' ? 'each' : 'once' }))
  const ends = useQuery(numbersQuery(form, own && { ...own, endsCounted: !own.endsCounted }))
  const other = useQuery(numbersQuery(form, book))
  if (!own) return null
  const columns: { name: string; values: (string | null)[] | undefined }[] = [
    { name: 'ours', values: study.positions.map((one) => one.number) },
    { name: own.compoundAsOne ? 'compounds by their parts' : 'compounds as one', values: compound.data },
    { name: own.repeats === 'once' ? 'repeats each time' : 'repeats once', values: repeats.data },
    { name: own.endsCounted ? 'opening and close uncounted' : 'opening and close counted', values: ends.data },
    { name: 'another book', values: other.data },
  ]
  return (
    <section>
      <h2 className="text-lg">Numbers</h2>
      <p className="mt-1 flex flex-wrap items-center gap-x-4 gap-y-1">
        <span className="font-semibold">The other book counts</span>
        <Checkbox checked={book.compoundAsOne} onChange={(checked) => setBook({ ...book, compoundAsOne: checked })}>
          a compound as one
        </Checkbox>
        <span className="flex items-center gap-1.5">
          repeats
          <Select label="Repeats" value={book.repeats} onChange={(repeats) => setBook({ ...book, repeats })}>
            {Object.entries(repeatWords).map(([value, name]) => (
              <Option key={value} value={value}>
                {name}
              </Option>
            ))}
          </Select>
        </span>
        <Checkbox checked={book.endsCounted} onChange={(checked) => setBook({ ...book, endsCounted: checked })}>
          the opening and the close
        </Checkbox>
      </p>
      <table className="mt-2 border-collapse">
        <thead>
          <tr className="border-b border-line text-left align-bottom">
            <th className="py-1 pr-4 font-semibold">position</th>
            {columns.map((column) => (
              <th key={column.name} className="w-28 py-1 pr-3 text-right font-semibold">
                {column.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {study.positions.map((about, at) => (
            <tr key={about.id} className={`border-b border-fine ${about.id === chosen?.id ? 'bg-pine-tint' : ''}`}>
              <th scope="row" className="py-0.5 pr-4 text-left font-serif font-semibold">
                <button type="button" onClick={() => choose(text.positions[at]!)}>
                  {about.name}
                </button>
              </th>
              {columns.map((column) => (
                <td key={column.name} className="pr-3 text-right">
                  {column.values?.[at] ?? <span className="text-soft">–</span>}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}
