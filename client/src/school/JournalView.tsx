import { useInfiniteQuery } from '@tanstack/react-query'
import { useDeferredValue, useState } from 'react'
import type { Schema } from '../api/client'
import { Opening } from '../shared/Opening'
import { Field } from '../ui/Field'
import { moment } from '../ui/words'
import { journalQuery } from './data'

const actWords: Record<Schema['HeadsAct'], string> = {
  account: 'sign-in',
  promotion: 'promotion',
  erasure: 'erasure',
  ladder: 'ladder',
  settings: 'settings',
}

/** What heads have done: the newest first, found by a name or a word, taken away as a table. */
export function JournalView() {
  const [find, setFind] = useState('')
  const wanted = useDeferredValue(find.trim())
  const journal = useInfiniteQuery(journalQuery(wanted))
  if (!journal.data) return <Opening of={[journal]} what="Opening the journal" />
  const entries = journal.data.pages.flatMap((page) => page.entries)
  return (
    <div className="grid gap-3">
      <p className="max-w-2xl text-soft">
        Every act of a head on sign-ins, promotions, erasures, the ladder and settings. Nothing is changed here or taken
        out; after {journal.data.pages[0]!.keptForYears} years an entry goes by itself. Whoever is erased is erased
        here, too.
      </p>
      <div className="flex flex-wrap items-end gap-4">
        <div className="w-72">
          <Field label="Find a name or a word" type="search" value={find} onChange={setFind} />
        </div>
        <a
          className="quiet-link pb-2"
          href={`/api/journal/table${wanted ? `?find=${encodeURIComponent(wanted)}` : ''}`}
          download
        >
          Take these away as a table
        </a>
      </div>
      <table className="w-full border-collapse bg-paper">
        <thead>
          <tr className="border-b border-line text-left text-soft">
            {['When', 'Who', 'About', 'What'].map((head) => (
              <th key={head} scope="col" className="px-3 py-2 font-semibold">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {entries.map((entry) => (
            <tr key={entry.id} className="border-b border-fine align-top">
              <td className="px-3 py-1.5 whitespace-nowrap text-soft">{moment(entry.at)}</td>
              <td className="px-3 py-1.5">{entry.by}</td>
              <th scope="row" className="px-3 py-1.5 text-left font-semibold">
                {entry.about ??
                  (entry.act === 'promotion' || entry.act === 'erasure' ? 'somebody erased' : 'the school')}
              </th>
              <td className="px-3 py-1.5 [overflow-wrap:anywhere]">
                <span className="text-soft">{actWords[entry.act]}: </span>
                {entry.text}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {entries.length === 0 && (
        <p className="p-4 text-soft">{wanted ? 'Nothing in the journal is like this.' : 'Nothing yet.'}</p>
      )}
      {journal.hasNextPage && (
        <button
          type="button"
          className="button justify-self-start"
          disabled={journal.isFetchingNextPage}
          onClick={() => void journal.fetchNextPage()}
        >
          Show earlier ones
        </button>
      )}
    </div>
  )
}
