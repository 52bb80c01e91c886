import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { Problem } from '../api/problem'
import { formsQuery } from '../shared/material'
import { Opening } from '../shared/Opening'
import { peopleQuery } from '../shared/people'
import { Choice, NumberField } from '../ui/Field'
import { Option } from '../ui/Select'
import { Empty, Heading, Refusal } from '../ui/states'
import { modeNames } from '../ui/words'
import { planShortStay } from './data'
import { kindWords } from './PlanDetails'

/** Somebody comes for a few lessons and wants to take something whole home: what they learn, lesson by lesson, on one sheet. */
export function ShortStayScreen() {
  const forms = useQuery(formsQuery())
  const school = useQuery(peopleQuery())
  if (!forms.data || !school.data) return <Opening of={[forms, school]} what="Opening" />
  if (forms.data.length === 0)
    return (
      <Empty next={[{ name: 'Write or bring one', to: '/forms' }]}>
        There is no form yet that somebody could learn from.
      </Empty>
    )
  return <Stay forms={forms.data} sashes={school.data.sashes} />
}

interface Asked {
  formId: string
  lessons: number | null
  minutes: number | null
  mostNew: number | null
  mode: Schema['Mode']
  sashId: string
}

function Stay({ forms, sashes }: { forms: { id: string; name: string }[]; sashes: { id: string; name: string }[] }) {
  const [asked, setAsked] = useState<Asked>({
    formId: forms[0]?.id ?? '',
    lessons: 5,
    minutes: 90,
    mostNew: 2,
    mode: 'standing',
    sashId: '',
  })
  const set = (part: Partial<typeof asked>) => setAsked({ ...asked, ...part })
  const plan = useMutation(planShortStay)
  const work = () =>
    plan.mutate({
      ...asked,
      lessons: asked.lessons ?? 0,
      minutes: asked.minutes ?? 0,
      mostNew: asked.mostNew ?? 0,
      sashId: asked.sashId || null,
    })
  const errors = plan.error instanceof Problem ? plan.error : undefined
  return (
    <>
      <Heading
        title="A short stay"
        facts={
          <>
            <Link to="/term" className="quiet-link screen-only">
              Term
            </Link>{' '}
            For a visitor who comes for a few lessons and wants to take something whole home.
          </>
        }
      >
        {plan.data && (
          <button type="button" className="button screen-only" onClick={() => window.print()}>
            Print this sheet
          </button>
        )}
      </Heading>
      <form
        className="screen-only grid gap-3 border-y border-line bg-paper px-5 py-4 sm:grid-cols-3 lg:grid-cols-7"
        onSubmit={(event) => {
          event.preventDefault()
          work()
        }}
      >
        <Choice label="Form" value={asked.formId} onChange={(formId) => set({ formId })}>
          {forms.map((form) => (
            <Option key={form.id} value={form.id}>
              {form.name}
            </Option>
          ))}
        </Choice>
        <NumberField
          label="Lessons"
          value={asked.lessons}
          onChange={(lessons) => set({ lessons })}
          error={errors?.at('lessons')}
        />
        <NumberField
          label="Minutes each"
          value={asked.minutes}
          onChange={(minutes) => set({ minutes })}
          error={errors?.at('minutes')}
        />
        <NumberField
          label="New a lesson"
          value={asked.mostNew}
          onChange={(mostNew) => set({ mostNew })}
          error={errors?.at('mostNew')}
        />
        <Choice label="Mode" value={asked.mode} onChange={(mode) => set({ mode })}>
          {modeNames.map((mode) => (
            <Option key={mode} value={mode}>
              {mode}
            </Option>
          ))}
        </Choice>
        <Choice label="Knows already" value={asked.sashId} onChange={(sashId) => set({ sashId })}>
          <Option value="">nothing</Option>
          {sashes.map((sash) => (
            <Option key={sash.id} value={sash.id}>
              all of {sash.name}
            </Option>
          ))}
        </Choice>
        <div className="self-end">
          <button type="submit" className="button button-primary w-full" disabled={plan.isPending}>
            Work it out
          </button>
        </div>
      </form>
      {plan.isError && (
        <div className="px-5 py-3">
          <Refusal error={plan.error} shown={['lessons', 'minutes', 'mostNew']} />
        </div>
      )}
      {plan.data && <Sheet stay={plan.data} />}
    </>
  )
}

function Sheet({ stay }: { stay: Schema['ShortStayResponse'] }) {
  if (stay.positions === 0)
    return <p className="p-5">Not even one posture fits: longer lessons, or one lesson more, would make room.</p>
  return (
    <div className="grid gap-6 px-5 py-5 lg:grid-cols-[1fr_300px]">
      <section>
        <h2 className="text-xl">
          {stay.isWhole
            ? `All of ${stay.form}`
            : stay.isSegment
              ? `${stay.form}: ${stay.learned[0]} to ${stay.learned.at(-1)}`
              : `A form out of ${stay.form}, from ${stay.learned[0]} to ${stay.learned.at(-1)}`}
        </h2>
        <p className="text-soft">
          {stay.positions} {stay.positions === 1 ? 'position' : 'positions'}, {stay.different} different postures
        </p>
        <ol className="mt-3 grid gap-4">
          {stay.lessons.map((lesson, at) => (
            <li key={at} className="break-inside-avoid border-t border-line pt-2">
              <h3 className="text-base">
                Lesson {at + 1}{' '}
                <span className="font-sans text-small font-normal text-soft">
                  {lesson.minutes} of {lesson.teachable} min
                </span>
              </h3>
              <ul>
                {lesson.reviewed.map((item) => (
                  <li key={`r${item.name}`}>
                    Review {item.name}, {item.minutes} min
                  </li>
                ))}
                {lesson.new.map((item) => (
                  <li key={`n${item.name}`}>
                    <b>
                      {kindWords[item.kind]}
                      {item.name}
                    </b>
                    , {item.minutes} min{item.keyPoint && <span className="text-soft"> · {item.keyPoint}</span>}
                  </li>
                ))}
                <li>
                  All of it once through, {lesson.runThrough} min
                  {lesson.new.length === 0 && ', then what is still open'}
                </li>
              </ul>
            </li>
          ))}
        </ol>
      </section>
      <section className="grid content-start gap-5">
        {stay.leftOut.length > 0 && (
          <div>
            <h2 className="text-lg">Left out</h2>
            {Object.entries(Object.groupBy(stay.leftOut, (left) => left.because)).map(([because, left]) => (
              <p key={because} className="mt-1">
                {left!.length > 4
                  ? `${left!.length} positions, ${left![0]!.name} to ${left!.at(-1)!.name}`
                  : left!.map((one) => one.name).join('; ')}
                . <span className="text-soft">{because}</span>
              </p>
            ))}
          </div>
        )}
        <div>
          <h2 className="text-lg">With care</h2>
          <p>{stay.cautions.join(' ')}</p>
        </div>
      </section>
    </div>
  )
}
