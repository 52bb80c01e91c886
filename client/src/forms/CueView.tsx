import { Fragment } from 'react'
import { SmallFigure } from '../shared/SmallFigure'
import { useWays } from '../shared/ways'
import { Dial } from '../ui/Dial'
import type { Form, Position } from './data'

const stands = {
  backToClass: 'The teacher stands with the back to the class and does what is said.',
  facingMirrored: 'The teacher faces the class and does the mirror of what is said: say left, do right.',
  facingUnmirrored: 'The teacher faces the class and does what is said, so the students see it the other way round.',
} as const

/** The cue sheet: what is said and what is done, for whichever way this school's teachers stand. */
export function CueView({
  form,
  chosen,
  choose,
}: {
  form: Form
  chosen: Position | undefined
  choose: (position: Position) => void
}) {
  const { text, study } = form
  const { ways, say } = useWays()
  return (
    <div className="min-h-0 flex-1 overflow-y-auto bg-paper px-5 py-4">
      <p className="mb-3 max-w-2xl text-soft">
        {ways && stands[ways.demonstration]} Where teachers stand is a setting of the school.{' '}
        {ways &&
          (ways.countsPerBreath === 1 ? 'One breath to a count.' : `One breath to ${ways.countsPerBreath} counts.`)}
      </p>
      <table className="w-full max-w-4xl border-collapse">
        <thead>
          <tr className="border-b border-line text-left">
            <th className="w-10 py-1.5 font-semibold">
              <span className="sr-only">Count</span>
            </th>
            <th className="py-1.5 pr-4 font-semibold">say</th>
            <th className="py-1.5 pr-4 font-semibold">do</th>
            <th className="py-1.5 pr-2 font-semibold">students</th>
            <th className="py-1.5 font-semibold">teacher</th>
          </tr>
        </thead>
        <tbody>
          {text.positions.map((position, at) => (
            <Fragment key={position.id}>
              <tr className={position.id === chosen?.id ? 'bg-pine-tint' : ''}>
                <th colSpan={5} scope="rowgroup" className="pt-3 pb-1 text-left">
                  <span className="flex items-end gap-4">
                    <span className="grid h-16 min-w-10 place-items-center">
                      <SmallFigure
                        postureId={position.postureId}
                        side={position.side}
                        mirrored={ways?.demonstration === 'facingMirrored'}
                        label={`${study.positions[at]!.name}, what you do${ways?.demonstration === 'facingMirrored' ? ', in a mirror' : ''}`}
                        className="h-16"
                      />
                    </span>
                    <button type="button" className="font-serif text-lg font-semibold" onClick={() => choose(position)}>
                      <span className="mr-2">{study.positions[at]!.number ?? '–'}</span>
                      {study.positions[at]!.name}
                      {position.repeats > 1 && (
                        <span className="font-sans text-small font-normal text-soft"> × {position.repeats}</span>
                      )}
                    </button>
                  </span>
                </th>
              </tr>
              {study.cues
                .filter((line) => line.at === at)
                .map((line) => (
                  <tr key={line.count} className="border-b border-fine align-middle">
                    <td className="py-1 text-right font-serif font-bold">
                      {line.count === 0 ? (
                        <span className="pr-3 font-sans font-normal text-soft">link</span>
                      ) : (
                        <span className="pr-3">{line.count}</span>
                      )}
                    </td>
                    <td className="py-1 pr-4">{line.say}</td>
                    <td className={`py-1 pr-4 ${line.do === line.say ? 'text-soft' : 'font-semibold text-pine'}`}>
                      {line.do}
                    </td>
                    <td className="py-1">
                      <Dial facing={line.students} said={say(line.students)} size={22} />
                    </td>
                    <td className="py-1">
                      <Dial facing={line.teacher} said={say(line.teacher)} size={22} />
                    </td>
                  </tr>
                ))}
            </Fragment>
          ))}
        </tbody>
      </table>
    </div>
  )
}
