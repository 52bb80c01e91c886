import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { Opening } from '../shared/Opening'
import type { Schema } from '../api/client'
import { useSignedIn } from '../shared/session'
import { newId } from '../ui/new-id'
import { Choice, Field } from '../ui/Field'
import { Option } from '../ui/Select'
import { Refusal } from '../ui/states'
import { demandWords, longDate } from '../ui/words'
import { safetyQuery, settleAdaptation } from './data'

type Item = Schema['SafetyItem']

/** What the coming lessons would ask of somebody who must not be asked for it, until it has been settled how they do it. */
export function SafetyView() {
  const { isHead, person } = useSignedIn()
  const safety = useQuery(safetyQuery())
  if (!safety.data) return <Opening of={[safety]} what="Going through the coming lessons" />
  const open = safety.data.filter((item) => item.open)
  const settled = safety.data.filter((item) => !item.open)
  return (
    <div className="grid flex-1 content-start gap-6 border-t border-line px-5 py-4">
      <div className="flex flex-wrap items-baseline justify-between gap-4">
        <p className="max-w-3xl text-lead">
          <b>
            {open.length === 0
              ? 'Everything in the coming lessons is settled.'
              : open.length === 1
                ? 'One thing in the coming lessons is to be settled.'
                : `${open.length} things in the coming lessons are to be settled.`}
          </b>{' '}
          Until then whoever it concerns leaves the posture out, and every plan and sheet says so.
        </p>
        {isHead && (
          <Link to="/people?view=log" className="quiet-link">
            Who read or changed limits
          </Link>
        )}
      </div>
      {open.length > 0 && (
        <ul aria-label="To be settled" className="grid gap-3">
          {open.map((item) => (
            <li
              key={item.studentId + item.postureId + item.side}
              className="grid gap-3 rounded-r border-l-4 border-lacquer bg-paper px-4 py-3 lg:grid-cols-[minmax(0,1fr)_minmax(0,1.4fr)]"
            >
              <div>
                <p className="font-serif text-lg font-semibold">
                  {item.student}: {item.posture}
                </p>
                <p className="text-soft">
                  {item.cohort}, {item.class} · first on {longDate(item.first)}
                </p>
                {item.breaks.length > 0 && (
                  <p>It would ask for {item.breaks.map((demand) => demandWords[demand]).join(', ')}.</p>
                )}
                {item.toWrite && (
                  <p>
                    No written version fits; a {item.toWrite} one could.{' '}
                    {isHead && (
                      <Link
                        className="quiet-link"
                        to={`/forms/postures/${item.postureId}?edit=1&version=${item.toWrite}&back=${encodeURIComponent('/people?view=safety')}`}
                      >
                        Write it
                      </Link>
                    )}
                  </p>
                )}
              </div>
              {person.role !== 'assistant' && <Settle item={item} />}
            </li>
          ))}
        </ul>
      )}
      {settled.length > 0 && (
        <section>
          <h2 className="text-lg">Settled</h2>
          <ul className="mt-1 grid gap-1">
            {settled.map((item) => (
              <Settled key={item.studentId + item.postureId + item.side} item={item} />
            ))}
          </ul>
        </section>
      )}
      <p className="max-w-3xl border-l-4 border-ochre-mark pl-3 text-small">
        Limits are functional and never a diagnosis. After illness, surgery or a fall a student’s own clinician comes
        first; whoever can help stays with adapted groups the whole time; local codes on first aid and accessibility
        come before any plan.
      </p>
    </div>
  )
}

function Settled({ item }: { item: Item }) {
  const { person } = useSignedIn()
  const [again, setAgain] = useState(false)
  return (
    <li className="border-b border-fine py-1.5">
      <span>{item.says}</span> <span className="text-soft">· {item.cohort}</span>
      {person.role !== 'assistant' && (
        <button
          type="button"
          className="quiet-link ml-4"
          aria-label={`Settle anew: ${item.student}, ${item.posture}`}
          onClick={() => setAgain(!again)}
        >
          {again ? 'Keep it' : 'Settle anew'}
        </button>
      )}
      {again && <Settle item={item} />}
    </li>
  )
}

/** In which mode, with which words; or not at all. Settled anew, it begins with what was settled. */
function Settle({ item }: { item: Item }) {
  const usual = (mode: string) => item.modes.find((way) => way.mode === mode)?.words ?? ''
  const first = item.modes[0]?.mode ?? ''
  const [mode, setMode] = useState(item.decided ? (item.decided.mode ?? '') : first)
  const [words, setWords] = useState(item.decided?.words ?? usual(first))
  const decide = useMutation(settleAdaptation)
  return (
    <form
      className="grid items-end gap-3 sm:grid-cols-[170px_minmax(0,1fr)_auto]"
      onSubmit={(event) => {
        event.preventDefault()
        decide.mutate({
          studentId: item.studentId,
          id: newId(),
          postureId: item.postureId,
          mode: mode || null,
          words,
        })
      }}
    >
      <Choice
        label="Does it"
        value={mode}
        onChange={(value) => {
          setMode(value)
          // Own words stay, whichever way is chosen.
          if (words === usual(mode)) setWords(usual(value))
        }}
      >
        {item.modes.map((way) => (
          <Option key={way.mode} value={way.mode}>
            {way.mode}
          </Option>
        ))}
        <Option value="">leaves it out</Option>
      </Choice>
      <Field label="As the sheet says it" value={words} onChange={setWords} />
      <button
        type="submit"
        className="button"
        disabled={decide.isPending}
        aria-label={`Settle ${item.student}, ${item.posture}`}
      >
        Settle
      </button>
      {decide.isError && (
        <div className="sm:col-span-3">
          <Refusal error={decide.error} />
        </div>
      )}
    </form>
  )
}
