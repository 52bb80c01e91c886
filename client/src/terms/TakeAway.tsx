import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { createPortal, flushSync } from 'react-dom'
import { calendarAddress } from './data'
import { useSignedIn } from '../shared/session'
import { Panel } from '../ui/Panel'
import { Refusal } from '../ui/states'
import { TermPrint } from './TermPrint'
import type { Plan } from './data'

/** The plan outside Zeitplan: on paper, in calendars, as a table. */
export function TakeAway({ plan, close }: { plan: Plan; close: () => void }) {
  const { person } = useSignedIn()
  const [printing, setPrinting] = useState<'wall' | 'hand-outs'>()
  const print = (what: 'wall' | 'hand-outs') => {
    flushSync(() => setPrinting(what))
    window.print()
    setPrinting(undefined)
  }
  return (
    <Panel
      title="Print and take away"
      facts={
        plan.draft
          ? 'Printed as the draft is; calendars and the table follow the announced plan.'
          : `Plan ${plan.announced}`
      }
      close={close}
    >
      <section>
        <h3>On paper</h3>
        <div className="flex flex-wrap gap-2">
          <button type="button" className="button" onClick={() => print('wall')}>
            The term for the wall
          </button>
          <button type="button" className="button" onClick={() => print('hand-outs')}>
            A list for each cohort
          </button>
        </div>
      </section>
      {plan.announced !== null && (
        <>
          <section>
            <h3>In calendars</h3>
            <p className="text-soft">
              A calendar that subscribes follows every lesson that moves. Whoever has the address can read it.
            </p>
            {person.role !== 'assistant' && <Address name={plan.class} classId={plan.classId} />}
            <Address name="Everything you teach" classId={null} />
            <a className="quiet-link" href={`/api/classes/${plan.classId}/calendar.ics`} download>
              Save {plan.class} as a calendar file
            </a>
          </section>
          <section>
            <h3>As a table</h3>
            <a className="quiet-link" href={`/api/terms/${plan.termId}/classes/${plan.classId}/plan.csv`} download>
              Save the plan as CSV
            </a>
          </section>
        </>
      )}
      {printing && createPortal(<TermPrint plan={plan} what={printing} />, document.body)}
    </Panel>
  )
}

/** A secret address, shown when it is asked for; a new one ends the old. */
function Address({ name, classId }: { name: string; classId: string | null }) {
  const link = useMutation(calendarAddress)
  if (link.isError) return <Refusal error={link.error} />
  if (!link.data)
    return (
      <p className="my-2">
        <button
          type="button"
          className="button"
          disabled={link.isPending}
          onClick={() => link.mutate({ classId, renew: false })}
        >
          Address for {name}
        </button>
      </p>
    )
  return (
    <div className="my-2 grid gap-1">
      <label className="grid gap-1 font-semibold">
        {name}
        <input
          className="field w-full font-normal"
          readOnly
          value={window.location.origin + link.data.path}
          onFocus={(event) => event.target.select()}
        />
      </label>
      <button
        type="button"
        className="quiet-link justify-self-start"
        disabled={link.isPending}
        onClick={() => link.mutate({ classId, renew: true })}
      >
        End this address and make a new one
      </button>
    </div>
  )
}
