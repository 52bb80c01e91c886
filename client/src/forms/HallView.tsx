import { counted } from '../ui/words'
import { useQuery } from '@tanstack/react-query'
import { useId, useState } from 'react'
import type { Schema } from '../api/client'
import { peopleQuery } from '../shared/people'
import { rulesQuery } from '../shared/ways'
import { Opening } from '../shared/Opening'
import { Choice, Field } from '../ui/Field'
import { Option } from '../ui/Select'
import { Empty, Failure } from '../ui/states'
import { hallFitQuery, type Form } from './data'
import { decimal } from '../ui/writing'

/** So many people and this form, or a part of it, in one of the school's halls. */
export function HallView({ form }: { form: Form }) {
  const { text, study } = form
  const people = useQuery(peopleQuery())
  const [hallId, setHall] = useState<string | null>(null)
  const [counts, setCounts] = useState({ standing: '14', seated: '0', frames: '0', railUsers: '0' })
  const [part, setPart] = useState('')
  const halls = people.data?.halls ?? []
  const hall = halls.find((one) => one.id === hallId) ?? halls[0]
  const segment = text.segments.find((one) => one.id === part)
  const section = text.positions.filter((position) => position.sectionId === part)
  const body = {
    hallId: hall?.id ?? '',
    standing: Number(counts.standing) || 0,
    seated: Number(counts.seated) || 0,
    frames: Number(counts.frames) || 0,
    railUsers: Number(counts.railUsers) || 0,
    fromId: segment?.fromId ?? section[0]?.id ?? null,
    toId: segment?.toId ?? section.at(-1)?.id ?? null,
  }
  const rules = useQuery(rulesQuery())
  const fit = useQuery(hallFitQuery(form, body, hall !== undefined && text.positions.length > 0))
  if (!people.data) return <Opening of={[people]} what="Opening the halls" />
  if (!hall)
    return (
      <Empty next={[{ name: 'Add a hall', to: '/people?view=halls' }]}>
        There is no hall yet to see whether the form fits in it.
      </Empty>
    )

  const set = (name: keyof typeof counts) => (value: string) =>
    setCounts({ ...counts, [name]: value.replace(/\D/g, '').slice(0, 3) })
  return (
    <div className="grid min-h-0 flex-1 gap-0 overflow-y-auto xl:grid-cols-[300px_1fr]">
      <div className="grid content-start gap-3 border-r border-line bg-paper p-4">
        <Choice label="Hall" value={hall.id} onChange={setHall}>
          {halls.map((one) => (
            <Option key={one.id} value={one.id}>
              {one.name}, {one.width} × {one.depth} m
            </Option>
          ))}
        </Choice>
        <Choice label="What is done" value={part} onChange={setPart}>
          <Option value="">the whole form</Option>
          {text.sections.length > 1 &&
            text.sections.map((one) => (
              <Option key={one.id} value={one.id}>
                {one.name}
              </Option>
            ))}
          {text.segments.map((one) => (
            <Option key={one.id} value={one.id}>
              {one.name}
            </Option>
          ))}
        </Choice>
        <div className="grid grid-cols-2 gap-3">
          <Field label="Standing" value={counts.standing} onChange={set('standing')} />
          <Field label="of them at a rail" value={counts.railUsers} onChange={set('railUsers')} />
          <Field label="Seated" value={counts.seated} onChange={set('seated')} />
          <Field label="With frames" value={counts.frames} onChange={set('frames')} />
        </div>
        {fit.isError && <Failure error={fit.error} />}
        <p className="text-small text-soft">
          Doorways, escape routes and the numbers allowed in a hall are your local code’s business and come first.
        </p>
      </div>
      <div className="grid content-start gap-4 p-5">
        {fit.data && (
          <>
            <Answer answer={fit.data.answer} />
            {rules.data && <HallPlan data={fit.data} standing={body.standing} arms={rules.data.reachMetres} />}
            <p className="text-soft">
              {study.floor.need.travelled > 0 && <>The form travels {decimal(study.floor.need.travelled)} m in all. </>}
              A walking drill in bow steps along the depth turns after {counted(fit.data.drillSteps, 'step')}.
            </p>
          </>
        )}
      </div>
    </div>
  )
}

function Answer({ answer }: { answer: Schema['HallAnswer'] }) {
  return (
    <div aria-live="polite" className="grid gap-1">
      {answer.says.map((line, at) => (
        <p key={line} className={at === 0 ? `text-lead font-semibold ${answer.best.fits ? '' : 'text-ochre'}` : ''}>
          {line}
        </p>
      ))}
      {answer.wouldFit.length > 0 && (
        <div className="mt-1">
          <p className="font-semibold">What would fit</p>
          <ul className="list-disc pl-5">
            {answer.wouldFit.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </div>
      )}
      {answer.shortages.map((line) => (
        <p key={line} className="font-semibold text-ochre">
          {line}
        </p>
      ))}
    </div>
  )
}

/** The hall from above with everybody's place at the start, the room each needs, and what they travel through together. Metres. */
/** @param arms The room one person's arms need all round, metres. */
function HallPlan({ data, standing, arms }: { data: Schema['HallFitHallResponse']; standing: number; arms: number }) {
  const stripes = useId()
  const { best } = data.answer
  const { reach } = data.need
  const { width, depth } = data
  const people = Array.from({ length: Math.min(standing, best.abreast * best.rows) }, (_, at) => {
    const row = Math.floor(at / best.abreast)
    const inRow = Math.min(best.abreast, standing - row * best.abreast)
    return {
      x: best.startFromLeft + ((best.abreast - inRow) / 2 + (at % best.abreast)) * 2 * arms,
      y: best.startFromFront + row * 2 * arms,
    }
  })
  const xs = people.map((one) => one.x)
  const ys = people.map((one) => one.y)
  const block =
    people.length === 0
      ? null
      : {
          x: Math.min(...xs) + reach.left,
          y: Math.min(...ys) - reach.front,
          width: Math.max(...xs) - Math.min(...xs) + reach.right - reach.left,
          height: Math.max(...ys) - Math.min(...ys) + reach.front - reach.back,
        }
  const margin = 1.1
  const sees = {
    left: Math.min(0, block?.x ?? 0) - margin,
    top: Math.min(0, block?.y ?? 0) - margin,
    right: Math.max(Number(width), (block?.x ?? 0) + (block?.width ?? 0)) + margin,
    bottom: Math.max(Number(depth), (block?.y ?? 0) + (block?.height ?? 0)) + margin,
  }
  return (
    <svg
      role="img"
      aria-label={`The hall from above: ${best.abreast} abreast in ${best.rows} lines`}
      viewBox={`${sees.left} ${sees.top} ${sees.right - sees.left} ${sees.bottom - sees.top}`}
      className="max-h-[56vh] w-full"
    >
      <defs>
        <pattern id={stripes} width={0.26} height={40} patternUnits="userSpaceOnUse">
          <path d="M0 0V40" className="stroke-boardline" strokeWidth={0.02} />
        </pattern>
      </defs>
      <rect width={width} height={depth} className="fill-floorboard" />
      <rect width={width} height={depth} fill={`url(#${stripes})`} className="stroke-ink" strokeWidth={0.08} />
      <path d={`M${Number(width) * 0.3} 0H${Number(width) * 0.7}`} className="stroke-floorboard" strokeWidth={0.14} />
      <text x={Number(width) / 2} y={-0.25} textAnchor="middle" className="fill-soft" fontSize={0.34}>
        front, {decimal(Number(width))} m
      </text>
      {block && (
        <rect
          {...block}
          rx={0.1}
          className="fill-none stroke-ochre-mark"
          strokeWidth={0.05}
          strokeDasharray="0.2 0.14"
        />
      )}
      {people.map((one, at) => (
        <g key={at} transform={`translate(${one.x} ${one.y})`}>
          <circle r={arms} className="fill-pine" fillOpacity={0.1} />
          <path
            d="M-0.22 0.1A0.24 0.24 0 0 0 0.22 0.1L0 -0.3Z"
            className="fill-pine"
            transform={`rotate(${best.turned})`}
          />
        </g>
      ))}
    </svg>
  )
}
