import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { posturesQuery, type Side } from '../shared/material'
import { Choice } from '../ui/Field'
import { Option } from '../ui/Select'
import type { Facts, RegisterItem } from './data'

export type Added = Pick<Facts['taught'], 'postureId' | 'side' | 'kind' | 'how'> & { name: string }

/** Whatever was taught that no plan foresaw, and everything of a lesson before the first plan. */
export function AddTaught({ items, add }: { items: readonly RegisterItem[]; add: (what: Added) => void }) {
  const [asked, setAsked] = useState(false)
  const [postureId, setPosture] = useState('')
  const [side, setSide] = useState<Side>('symmetric')
  const [how, setHow] = useState<Added['how']>('introduced')
  const postures = useQuery({ ...posturesQuery(), enabled: asked }).data ?? []
  const posture = postures.find((one) => one.id === postureId)
  const sides: readonly Side[] = posture?.writtenSide === 'symmetric' ? ['symmetric'] : ['left', 'right']
  const there = items.some((item) => item.kind !== 'link' && item.postureId === postureId && item.side === side)
  if (!asked)
    return (
      <p className="px-5 pt-4">
        <button type="button" className="quiet-link" onClick={() => setAsked(true)}>
          Something else was taught
        </button>
      </p>
    )
  return (
    <section aria-label="Something else was taught" className="px-5 pt-4">
      <h2 className="text-base">Something else was taught</h2>
      <div className="mt-2 flex flex-wrap items-end gap-3">
        <div className="w-64">
          <Choice
            label="Posture or drill"
            value={postureId}
            placeholder="choose"
            onChange={(id) => {
              const chosen = postures.find((one) => one.id === id)
              setPosture(id)
              setSide(chosen?.writtenSide ?? 'symmetric')
            }}
          >
            {postures.map((one) => (
              <Option key={one.id} value={one.id}>
                {one.name}
              </Option>
            ))}
          </Choice>
        </div>
        {sides.length > 1 && (
          <div className="w-32">
            <Choice label="Side" value={side} onChange={setSide}>
              {sides.map((one) => (
                <Option key={one} value={one}>
                  {one}
                </Option>
              ))}
            </Choice>
          </div>
        )}
        <div className="w-44">
          <Choice label="How" value={how} onChange={setHow}>
            <Option value="introduced">new</Option>
            <Option value="reviewed">review</Option>
            <Option value="runThrough">in a run-through</Option>
          </Choice>
        </div>
        <button
          type="button"
          className="button"
          disabled={!posture || there}
          onClick={() => {
            add({
              postureId,
              side,
              kind: posture!.kind === 'drill' ? 'drill' : 'posture',
              how,
              name: side === 'symmetric' ? posture!.name : `${posture!.name}, ${side}`,
            })
            setPosture('')
          }}
        >
          Add it
        </button>
      </div>
      {there && <p className="mt-1 text-soft">It stands above already: tick it there.</p>}
    </section>
  )
}
