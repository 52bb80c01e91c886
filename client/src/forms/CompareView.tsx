import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schema } from '../api/client'
import { formQuery } from '../shared/material'
import { peopleQuery } from '../shared/people'
import { Opening } from '../shared/Opening'
import { Option, OptionGroup, Select } from '../ui/Select'
import { compareQuery, type Form, type Position } from './data'

/** What is new in this form for somebody who knows another one, or for a cohort as it stands today. */
export function CompareView({
  form,
  forms,
  choose,
}: {
  form: Form
  forms: Schema['FormItem'][]
  choose: (position: Position) => void
}) {
  const people = useQuery(peopleQuery())
  const others = forms.filter((one) => one.id !== form.id)
  const cohorts = (people.data?.classes ?? []).flatMap((schoolClass) =>
    schoolClass.cohorts.map((cohort) => ({ id: cohort.id, name: `${cohort.name}, ${schoolClass.name}` })),
  )
  const [chosen, setChosen] = useState('')
  const first = others[0] ? `form:${others[0].id}` : cohorts[0] ? `cohort:${cohorts[0].id}` : ''
  const [kind, id] = (chosen || first).split(':') as ['form' | 'cohort', string]
  const compare = useQuery(compareQuery(form, kind, id))
  const go = (positionId: string) => {
    const position = form.text.positions.find((one) => one.id === positionId)
    if (position) choose(position)
  }
  const data = compare.data
  return (
    <div className="grid min-h-0 flex-1 content-start gap-5 overflow-y-auto bg-paper p-5">
      <div className="flex flex-wrap items-center gap-2 font-semibold">
        {form.text.name} for somebody who knows
        <Select label="Somebody who knows" value={chosen || first} onChange={setChosen} placeholder="…">
          <OptionGroup label="a form">
            {others.map((one) => (
              <Option key={one.id} value={`form:${one.id}`}>
                {one.name}
              </Option>
            ))}
          </OptionGroup>
          <OptionGroup label="what a cohort does alone">
            {cohorts.map((one) => (
              <Option key={one.id} value={`cohort:${one.id}`}>
                {one.name}
              </Option>
            ))}
          </OptionGroup>
        </Select>
      </div>
      {!id && <p className="text-soft">There is no other form and no cohort to compare with yet.</p>}
      {!data && id && <Opening of={[compare]} what="Comparing" />}
      {data && (
        <>
          <p className="text-lead" aria-live="polite">
            <b>{Math.round(Number(data.minutes))} minutes to learn:</b> {data.newPostures.length} new postures,{' '}
            {data.otherSides.length} known on the other side, {data.variants.length} in a variant,{' '}
            {data.newLinks.length} new links between known ones. {data.known} postures and sides of it are known
            already.
          </p>
          <div className="grid gap-6 md:grid-cols-2">
            <List title="New postures" items={data.newPostures} go={go} />
            <div className="grid content-start gap-6">
              <List title="Known, but on the other side" items={data.otherSides} go={go} />
              <List title="Known in a variant: only the difference" items={data.variants} go={go} />
              <section>
                <h2 className="text-base">New links between known postures</h2>
                <ul className="mt-1">
                  {data.newLinks.map((link) => (
                    <li key={link.positionId} className="flex justify-between gap-3 border-b border-fine py-1">
                      <button type="button" className="text-left" onClick={() => go(link.positionId)}>
                        {link.from} <span className="text-soft">to</span> {link.to}
                      </button>
                      <span className="text-soft">{link.minutes} min</span>
                    </li>
                  ))}
                  {data.newLinks.length === 0 && <li className="text-soft">none</li>}
                </ul>
              </section>
            </div>
          </div>
          {kind === 'form' && <SamePosture form={form} otherId={id} choose={choose} />}
        </>
      )}
    </div>
  )
}

function List({
  title,
  items,
  go,
}: {
  title: string
  items: Schema['ComparedPosture'][]
  go: (positionId: string) => void
}) {
  return (
    <section>
      <h2 className="text-base">{title}</h2>
      <ul className="mt-1">
        {items.map((item) => (
          <li key={item.positionId} className="border-b border-fine py-1">
            <span className="flex justify-between gap-3">
              <button type="button" className="text-left font-serif font-semibold" onClick={() => go(item.positionId)}>
                {item.name}
              </button>
              <span className="text-soft">{item.minutes} min</span>
            </span>
            {item.difference.length > 0 && <span className="block text-soft">{item.difference.join(' · ')}</span>}
          </li>
        ))}
        {items.length === 0 && <li className="text-soft">none</li>}
      </ul>
    </section>
  )
}

/** One posture in both forms, occurrence beside occurrence: facing, what comes before and after, what is done differently. */
function SamePosture({ form, otherId, choose }: { form: Form; otherId: string; choose: (position: Position) => void }) {
  const other = useQuery(formQuery(otherId)).data
  const [posture, setPosture] = useState('')
  if (!other) return null
  const shared = [...new Set(form.text.positions.map((position) => position.postureId))].filter((one) =>
    other.text.positions.some((position) => position.postureId === one),
  )
  if (shared.length === 0) return null
  const chosen = shared.includes(posture) ? posture : shared[0]!
  const plain = (one: Form, id: string) =>
    one.study.positions[one.text.positions.findIndex((position) => position.postureId === id)]!.name.replace(
      /, (left|right)$/,
      '',
    )
  return (
    <section>
      <h2 className="flex flex-wrap items-center gap-2 text-base">
        The same posture in both
        <Select
          className="font-sans font-normal"
          label="Posture"
          value={chosen}
          onChange={(chosen) => setPosture(chosen)}
        >
          {shared.map((id) => (
            <Option key={id} value={id}>
              {plain(form, id)}
            </Option>
          ))}
        </Select>
      </h2>
      <div className="mt-2 grid gap-6 md:grid-cols-2">
        {[form, other].map((one) => (
          <div key={one.id}>
            <h3 className="text-lead">{one.text.name}</h3>
            <ul>
              {one.text.positions.map((position, at) =>
                position.postureId !== chosen ? null : (
                  <li key={position.id} className="border-b border-fine py-1">
                    <button type="button" className="text-left" onClick={() => one === form && choose(position)}>
                      <b>{one.study.positions[at]!.number ?? '–'}</b> {one.study.positions[at]!.name}, ends at{' '}
                      {one.study.positions[at]!.facingSaid}
                    </button>
                    <span className="block text-soft">
                      {at > 0 ? `after ${one.study.positions[at - 1]!.name}` : 'first'}
                      {one.study.positions[at + 1] ? `, before ${one.study.positions[at + 1]!.name}` : ', last'}
                      {position.note && ` · ${position.note}`}
                    </span>
                  </li>
                ),
              )}
            </ul>
          </div>
        ))}
      </div>
    </section>
  )
}
