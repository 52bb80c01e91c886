import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { Opening } from '../shared/Opening'
import { termsQuery } from '../shared/people'
import { useSignedIn } from '../shared/session'
import { Panel } from '../ui/Panel'
import { Empty, Heading } from '../ui/states'
import { ToggleGroup } from '../ui/ToggleGroup'
import { counted, weightWords } from '../ui/words'
import { patternsQuery } from './data'
import { PatternPanel } from './PatternPanel'
import { FaultThread, Months } from './FaultThread'
import { isOf, keyOf, saidOf, times, type Kind } from './patterns'

const shows: readonly { value: Kind; name: string }[] = [
  { value: 'all', name: 'All' },
  { value: 'comesBack', name: 'Comes back' },
  { value: 'oneCohort', name: 'In one cohort' },
  { value: 'unlooked', name: 'Not looked at' },
  { value: 'mended', name: 'Mended' },
]

/** Faults over the years as threads: how long and how often each has been taught against, when it comes back, where it sits. Faults are compared here, never people. */
export function PatternsScreen() {
  const { isHead } = useSignedIn()
  const [kind, setKind] = useState<Kind>('all')
  const [search, setSearch] = useSearchParams()
  const board = useQuery(patternsQuery())
  const school = useQuery(termsQuery())
  if (!board.data || !school.data) return <Opening of={[board, school]} what="Looking through the years" />
  const [{ patterns, months }, terms] = [board.data, school.data]
  const shown = patterns.filter((pattern) => isOf(pattern, kind))
  const chosen = patterns.find((pattern) => keyOf(pattern) === search.get('fault'))
  return (
    <>
      <Heading
        title="What we teach against"
        facts={`${counted(patterns.length, 'fault')} in ${counted(months.length, 'month')}, ${patterns.filter((pattern) => pattern.openNow > 0).length} open in somebody now`}
      >
        <ToggleGroup
          label="Show"
          value={kind}
          options={shows.map(({ value, name }) => ({
            value,
            name: `${name} ${patterns.filter((pattern) => isOf(pattern, value)).length}`,
          }))}
          onChange={setKind}
        />
      </Heading>
      {patterns.length === 0 ? (
        <Empty next={isHead && [{ name: 'Who can do what', to: '/progress' }]}>
          Nothing has been corrected yet: a fault that is marked begins its thread here.
        </Empty>
      ) : (
        <div className="grid flex-1 border-t border-line lg:grid-cols-[minmax(0,1fr)_340px]">
          <div className="min-w-0 bg-paper">
            <div className="sticky top-0 z-10 grid gap-x-4 border-b border-line bg-paper px-5 lg:grid-cols-[226px_minmax(0,1fr)_184px]">
              <span className="hidden lg:block" />
              <Months months={months} terms={terms} />
              <span className="hidden lg:block" />
            </div>
            <ul>
              {shown.map((pattern) => (
                <li key={keyOf(pattern)} className={`border-b border-line ${pattern === chosen ? 'bg-pine-tint' : ''}`}>
                  <button
                    type="button"
                    aria-pressed={pattern === chosen}
                    onClick={() => setSearch({ fault: keyOf(pattern) }, { replace: true })}
                    className="grid w-full items-center gap-x-4 px-5 py-2 text-left lg:grid-cols-[226px_minmax(0,1fr)_184px]"
                  >
                    <span>
                      <span className="block font-serif text-base font-bold">{pattern.name}</span>
                      <span className="block leading-snug">{pattern.words}</span>
                    </span>
                    <FaultThread pattern={pattern} months={months} terms={terms} />
                    <span className="text-small">
                      <span className="block text-soft">
                        {weightWords[pattern.weight]}; {counted(pattern.weeks, 'week')}, called {times(pattern.called)},{' '}
                        {counted(pattern.people, 'person', 'people')}
                      </span>
                      {saidOf(pattern).map((said) => (
                        <b key={said} className="block">
                          {said}
                        </b>
                      ))}
                    </span>
                  </button>
                </li>
              ))}
              {shown.length === 0 && <li className="p-5 text-soft">None of them.</li>}
            </ul>
          </div>
          {chosen ? (
            <PatternPanel pattern={chosen} close={() => setSearch({}, { replace: true })} />
          ) : (
            <Panel title="Choose a thread">
              <p>
                Each thread is one fault in one posture, whoever had it. The wider it is, the more people had it open in
                that month; a knot is where it was first seen in somebody, or seen again.
              </p>
              <p>What has been taught against for longest stands first. People and teachers are not compared here.</p>
            </Panel>
          )}
        </div>
      )}
    </>
  )
}
