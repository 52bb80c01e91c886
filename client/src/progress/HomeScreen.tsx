import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { createPortal, flushSync } from 'react-dom'
import { Link, useNavigate, useParams } from 'react-router'
import type { Schema } from '../api/client'
import { Opening } from '../shared/Opening'
import { peopleQuery } from '../shared/people'
import { useSearch } from '../shared/search'
import { useSignedIn } from '../shared/session'
import { useUndo } from '../shared/undo'
import { WaitingNote } from '../shared/WaitingNote'
import { Kbd } from '../ui/Kbd'
import { newId } from '../ui/new-id'
import { Panel } from '../ui/Panel'
import { Empty, Heading, Refusal } from '../ui/states'
import { counted } from '../ui/words'
import { ClassChoice } from './ClassChoice'
import { handOut, homeQuery } from './data'
import { HomePrint } from './HomePrint'
import { HomeRow } from './HomeRow'
import { PracticeLog } from './PracticeLog'
import { usePractised } from './use-practised'

type Practiser = Schema['HomePracticePractiser']

/** What everybody of a class practises at home: a sheet for each, printed when it says something new, and what they say they did. */
export function HomeScreen() {
  const { classId } = useParams() as { classId: string }
  const { isHead } = useSignedIn()
  const navigate = useNavigate()
  const [search, set] = useSearch()
  const [printing, setPrinting] = useState<readonly Practiser[]>()
  const [printed, setPrinted] = useState<readonly Practiser[]>()
  const [unread, setUnread] = useState(false)
  const school = useQuery(peopleQuery())
  const home = useQuery(homeQuery(classId))
  const given = useMutation(handOut)
  const practised = usePractised(classId)
  const { last, undo } = useUndo()
  if (!school.data || !home.data) return <Opening of={[school, home]} what="Working out what to practise" />
  const { people, postures } = home.data
  const withSheet = people.filter((one) => one.sheet)
  const changed = withSheet.filter((one) => one.isNew)
  const chosen = people.find((one) => one.studentId === search.get('student'))

  const print = async (whom: readonly Practiser[]) => {
    given.reset()
    setUnread(false)
    flushSync(() => setPrinting(whom))
    try {
      await Promise.all([...document.querySelectorAll<HTMLImageElement>('.print-alone img')].map((one) => one.decode()))
      window.print()
      setPrinted(whom)
    } catch {
      setUnread(true)
    } finally {
      setPrinting(undefined)
    }
  }
  const theyHaveThem = (whom: readonly Practiser[]) =>
    given.mutate(
      {
        classId,
        sheets: whom.map((one) => ({ id: newId(), studentId: one.studentId, says: one.sheet!.says })),
      },
      { onSuccess: () => setPrinted(undefined) },
    )

  return (
    <>
      <Heading
        title="Home practice"
        facts={
          <>
            <Link to={`/progress/${classId}`} className="quiet-link">
              {home.data.class}
            </Link>{' '}
            · {counted(withSheet.length, 'sheet')}, {changed.length} to hand out
          </>
        }
      >
        <ClassChoice
          classes={school.data.classes}
          value={classId}
          onChange={(id) => {
            setPrinted(undefined)
            void navigate(`/progress/${id}/home`)
          }}
        />
        <button type="button" className="button" disabled={!last} onClick={undo}>
          Undo <Kbd>z</Kbd>
        </button>
        <button
          type="button"
          className="button"
          disabled={withSheet.length === 0}
          onClick={() => void print(withSheet)}
        >
          Print all
        </button>
        <button
          type="button"
          className="button button-primary"
          disabled={changed.length === 0}
          onClick={() => void print(changed)}
        >
          {changed.length === 0
            ? 'Nothing has changed'
            : `Print the ${changed.length === 1 ? 'one' : changed.length} to hand out`}
        </button>
      </Heading>
      {unread && (
        <p role="alert" className="border-t border-line bg-floorboard px-5 py-2 font-semibold text-ochre">
          The figures could not be fetched, so nothing was printed. Try again when the server answers.
        </p>
      )}
      {printed && (
        <div
          role="status"
          className="flex flex-wrap items-center gap-3 border-t border-line bg-floorboard px-5 py-2 font-semibold"
        >
          {printed.length === 1 ? 'Is the sheet on paper?' : `Are the ${printed.length} sheets on paper?`}
          <button
            type="button"
            className="button button-primary"
            disabled={given.isPending}
            onClick={() => theyHaveThem(printed)}
          >
            Yes, they are handed out
          </button>
          <button type="button" className="button" onClick={() => setPrinted(undefined)}>
            No
          </button>
          {given.isError && <Refusal error={given.error} />}
        </div>
      )}
      {people.length === 0 ? (
        <Empty next={isHead && [{ name: 'Open the roster', to: '/people?view=roster' }]}>
          Nobody is in this class yet.
        </Empty>
      ) : (
        <div className="grid flex-1 border-t border-line lg:grid-cols-[minmax(0,1fr)_340px]">
          <div className="flex min-w-0 flex-col bg-paper">
            <ul className="grid">
              {people.map((one) => (
                <HomeRow
                  key={one.studentId}
                  one={one}
                  isChosen={one === chosen}
                  minutesOn={practised.minutesOn}
                  choose={() => set({ student: one.studentId })}
                />
              ))}
            </ul>
            <div className="sticky bottom-0 max-md:bottom-14">
              <WaitingNote entries={practised.entries} />
            </div>
          </div>
          {chosen ? (
            <PracticeLog
              key={chosen.studentId}
              who={chosen}
              minutesOn={practised.minutesOn}
              say={practised.say}
              print={() => void print([chosen])}
              close={() => set({ student: null })}
            />
          ) : (
            <Panel title="Choose somebody">
              <p>
                Each sheet has at most three things: what is newest, the most important correction, and a run-through of
                what they can do alone; all in the mode that is right for them.
              </p>
              <p>
                A sheet changes only when something has: what is new, what is cleared, what fades. Print those, and keep
                the others.
              </p>
              <p>What somebody says they practised is written down, and is no stage.</p>
            </Panel>
          )}
        </div>
      )}
      {printing &&
        createPortal(<HomePrint people={printing} postures={postures} school={home.data.class} />, document.body)}
    </>
  )
}
