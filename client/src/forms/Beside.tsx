import { useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import type { Schema } from '../api/client'
import { useEngine, views, type Counted, type View } from '../engine/engine'
import { postureQuery } from '../shared/material'
import { useWays } from '../shared/ways'
import { Figure } from '../ui/Figure'
import { Option, OptionGroup, Select } from '../ui/Select'
import { ToggleGroup } from '../ui/ToggleGroup'
import { countedOf, hasBody } from '../shared/counted'

/** The end shape beside another one: a version of the same posture, or another posture. What is elsewhere is ringed in both. */
export function Beside({
  posture,
  postures,
}: {
  posture: Schema['PostureResponse']
  postures: Schema['PostureItem'][]
}) {
  const engine = useEngine().data
  const { pivots } = useWays()
  const [chosen, setChosen] = useState('')
  const [view, setView] = useState<View>('front')
  const [kind, id] = chosen.split(':')
  const other = useQuery(postureQuery(kind === 'posture' ? id : undefined)).data
  const { reads } = posture
  const pair = useMemo<{ one: Counted; other: Counted; name: string } | null>(() => {
    const one = countedOf(reads, undefined, pivots.onBall)
    const version = reads.versions.find((each) => kind === 'version' && each.mode === id)
    if (version) return { one, other: countedOf(reads, version, pivots.onBall), name: version.mode }
    return kind === 'posture' && other && hasBody(other.reads.counts)
      ? { one, other: countedOf(other.reads, undefined, pivots.onBall), name: other.reads.name }
      : null
  }, [reads, other, kind, id, pivots.onBall])
  const drawn = useMemo(() => {
    if (!engine || !pair) return null
    const seen = { view, turned: 0, mirrored: false, sash: '', night: false }
    return {
      one: engine.figure(pair.one, pair.one.feet.length, 1, seen),
      other: engine.figure(pair.other, pair.other.feet.length, 1, seen),
      joints: engine.differ(pair.one, pair.other, view),
    }
  }, [engine, pair, view])
  return (
    <section>
      <h3 className="mb-1 flex flex-wrap items-center gap-3 text-base">
        Its end shape beside
        <Select
          className="font-sans font-normal"
          label="Beside what"
          value={chosen}
          onChange={setChosen}
          placeholder="a version or another posture"
        >
          {reads.versions.length > 0 && (
            <OptionGroup label="a version">
              {reads.versions.map((version) => (
                <Option key={version.mode} value={`version:${version.mode}`}>
                  {version.mode}
                </Option>
              ))}
            </OptionGroup>
          )}
          <OptionGroup label="another posture">
            {postures
              .filter((one) => !one.isCompound && one.id !== posture.id)
              .map((one) => (
                <Option key={one.id} value={`posture:${one.id}`}>
                  {one.name}
                </Option>
              ))}
          </OptionGroup>
        </Select>
      </h3>
      {drawn && (
        <>
          <ToggleGroup
            label="Both seen from"
            value={view}
            options={views.map((value) => ({ value, name: value[0]!.toUpperCase() + value.slice(1) }))}
            onChange={setView}
          />
          <div className="mt-3 grid max-w-xl grid-cols-2 gap-4">
            {(['one', 'other'] as const).map((which) => (
              <figure key={which} className="grid justify-items-center">
                <Figure
                  {...drawn[which]}
                  className="h-64 w-full"
                  label={`${which === 'one' ? reads.name : pair!.name}, how it ends`}
                >
                  {drawn.joints.map((joint) => {
                    const at = which === 'one' ? joint.here : joint.there
                    return (
                      <circle
                        key={joint.joint}
                        cx={at.x}
                        cy={at.y}
                        r={7}
                        className="fill-none stroke-lacquer stroke-[1.6]"
                      />
                    )
                  })}
                </Figure>
                <figcaption className="text-soft">{which === 'one' ? 'standing' : pair!.name}</figcaption>
              </figure>
            ))}
          </div>
          <p>
            {drawn.joints.length === 0
              ? 'The same, to a hand’s breadth.'
              : `Elsewhere: ${drawn.joints.map((joint) => `${joint.joint} ${joint.apart} cm`).join(', ')}.`}
          </p>
        </>
      )}
    </section>
  )
}
