import type { Schema } from '../api/client'
import { useSignedIn } from '../shared/session'
import { longDate } from '../ui/words'
import { howMuch, kindWords } from './HomeThing'

/** Weeks on the tear-off. */
const WEEKS = 4
const weekdays = ['Mo', 'Tu', 'We', 'Th', 'Fr', 'Sa', 'Su']

interface HomePrintProps {
  people: readonly Schema['HomePracticePractiser'][]
  postures: readonly Schema['HomePracticeWritten'][]
  /** The class, as it is called. */
  school: string
}

/** A page for each student. Only the printer sees them. */
export function HomePrint({ people, postures, school }: HomePrintProps) {
  return (
    <div className="print-only print-alone">
      {people.map(
        (one) => one.sheet && <Page key={one.studentId} one={one} sheet={one.sheet} {...{ postures, school }} />,
      )}
    </div>
  )
}

function Page({
  one,
  sheet,
  postures,
  school,
}: Omit<HomePrintProps, 'people'> & { one: Schema['HomePracticePractiser']; sheet: Schema['HomePracticeSheet'] }) {
  const { today } = useSignedIn()
  const materialOf = (done: Schema['HomePracticeDone']) =>
    postures.find((one) => one.postureId === done.postureId && one.side === done.side && one.mode === done.mode)
  const cautions = [
    ...new Set([
      ...sheet.cautions,
      ...sheet.things.flatMap((thing) => thing.postures.flatMap((done) => materialOf(done)?.cautions ?? [])),
    ]),
  ]
  return (
    <article className="break-after-page text-[9pt] leading-[1.3]">
      <h1 className="text-[17pt]">{one.name}, at home</h1>
      <p>
        {school}, {longDate(today)} · {sheet.minutes} minutes a day
        {one.mode !== 'standing' && `, ${one.mode}`}
      </p>
      <p className="mt-2 border-y-2 border-ink py-1.5 text-[12pt]">
        <b>One thing to look at:</b> {sheet.focus}.
      </p>
      {sheet.things.map((thing) => (
        <section key={thing.kind} className="mt-3 break-inside-avoid">
          <h2 className="text-[12pt]">
            {kindWords[thing.kind]}: {thing.name}{' '}
            <span className="font-sans text-[9pt] font-normal">{howMuch(thing)}</span>
          </h2>
          {thing.seen && (
            <p>
              <b>Seen:</b> {thing.seen}.{' '}
              {thing.mend && (
                <>
                  <b>Instead:</b> {thing.mend}.
                </>
              )}
            </p>
          )}
          {thing.kind === 'flow' ? (
            <ol className="mt-1 flex flex-wrap gap-x-2 gap-y-1">
              {thing.postures.map((done, at) => (
                <li key={at} className="w-[21mm] text-[7pt] leading-tight">
                  <Count done={done} className="h-[15mm]" />
                  {at + 1} {materialOf(done)?.name}
                </li>
              ))}
            </ol>
          ) : (
            thing.postures.map((done) => (
              <Counts key={done.postureId + done.side} done={done} material={materialOf(done)} />
            ))
          )}
        </section>
      ))}
      {sheet.occasion && (
        <p className="mt-3">
          <b>{sheet.occasion.when}:</b> {sheet.occasion.how}
        </p>
      )}
      <p className="mt-3 border-t border-line pt-1 text-[7.5pt]">{cautions.join(' ')}</p>
      <footer className="mt-3 break-inside-avoid border-t border-dashed border-ink pt-2">
        <p>
          <b>{one.name}</b>: a tick for every day you practised. Tear it off and bring it along.
        </p>
        <table className="mt-1 border-collapse text-center [&_td]:h-[6.5mm] [&_td]:w-[11mm] [&_td]:border [&_td]:border-ink">
          <thead>
            <tr>
              <td className="border-0! pr-2 text-left">Week</td>
              {weekdays.map((day) => (
                <th key={day} className="font-normal">
                  {day}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {Array.from({ length: WEEKS }, (_, week) => (
              <tr key={week}>
                <td className="border-0! pr-2 text-left">{week + 1}</td>
                {weekdays.map((day) => (
                  <td key={day} />
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </footer>
    </article>
  )
}

/** Count by count, seen from behind: left is their own left. */
function Counts({
  done,
  material,
}: {
  done: Schema['HomePracticeDone']
  material: Schema['HomePracticeWritten'] | undefined
}) {
  if (!material) return null
  return (
    <>
      <ol className="mt-1 flex flex-wrap gap-x-2 gap-y-1">
        {material.cues.map((cue, at) => (
          <li key={at} className="w-[29mm] text-[8pt] leading-tight">
            <Count done={done} count={at + 1} className="h-[23mm]" />
            <b>{at + 1}</b> {cue}
          </li>
        ))}
      </ol>
      <p>
        <b>Key point:</b> {material.keyPoint}.
      </p>
    </>
  )
}

function Count({ done, count, className }: { done: Schema['HomePracticeDone']; count?: number; className: string }) {
  const query = new URLSearchParams({ side: done.side, version: done.mode, view: 'behind' })
  if (count !== undefined) query.set('count', String(count))
  return (
    <img
      src={`/api/postures/${done.postureId}/figure.svg?${query.toString()}`}
      alt=""
      className={`${className} w-auto`}
    />
  )
}
