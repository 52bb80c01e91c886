import type { Schema } from '../api/client'
import { Ribbon } from '../ui/Ribbon'
import { people } from '../ui/words'

const roles: Record<Schema['StaffRole'], string> = { head: 'head of school', instructor: 'instructor', assistant: 'assistant' }

/** The sash ladder, the halls drawn to one scale, and the staff. */
export function SchoolParts({ school }: { school: Schema['PeopleResponse'] }) {
  const widest = Math.max(...school.halls.map((hall) => hall.width))
  return (
    <div className="grid gap-8 px-5 pb-10 lg:grid-cols-[1fr_2fr_1fr]">
      <section>
        <h2 className="text-lg">Sash ladder</h2>
        <ol className="mt-2 grid gap-2">
          {school.sashes.toReversed().map((sash) => (
            <li key={sash.id} className="flex items-center gap-3">
              <Ribbon colour={sash.colour} size={32} />
              <span>
                <span className="font-serif text-base font-bold">{sash.name}</span>
                <br />
                <span className="text-soft">
                  {people(sash.students)}
                  {sash.hasHalves && ' · newer and senior'}
                </span>
              </span>
            </li>
          ))}
        </ol>
      </section>
      <section>
        <h2 className="text-lg">Halls</h2>
        <ul className="mt-2 flex flex-wrap items-end gap-6">
          {school.halls.map((hall) => (
            <li key={hall.id}>
              <svg viewBox={`-0.2 -0.4 ${hall.width + 0.4} ${hall.depth + 0.6}`} style={{ width: (hall.width / widest) * 240 }} role="img" aria-label={`${hall.name}, ${hall.width} by ${hall.depth} metres`}>
                <rect width={hall.width} height={hall.depth} className="fill-floorboard stroke-ink" strokeWidth="0.12" />
                {Array.from({ length: Math.floor(hall.width) }, (_, at) => (
                  <line key={at} x1={at + 1} x2={at + 1} y1="0" y2={hall.depth} className="stroke-line" strokeWidth="0.03" />
                ))}
                <line x1={hall.width / 2 - 1} x2={hall.width / 2 + 1} y1="-0.22" y2="-0.22" className="stroke-ink" strokeWidth="0.14" />
                {hall.rail > 0 && <line x1={(hall.width - Math.min(hall.rail, hall.width)) / 2} x2={(hall.width + Math.min(hall.rail, hall.width)) / 2} y1={hall.depth - 0.3} y2={hall.depth - 0.3} className="stroke-pine" strokeWidth="0.18" />}
              </svg>
              <p>
                <span className="font-serif text-base font-bold">{hall.name}</span>
                <br />
                {hall.width} m wide, {hall.depth} m deep
                <br />
                <span className="text-soft">
                  {hall.chairs} firm chairs{hall.rail > 0 ? `, ${hall.rail} m of rail` : ', no rail'}
                </span>
              </p>
            </li>
          ))}
        </ul>
        <p className="mt-4 max-w-prose text-soft">All drawn to one scale, front wall above, rail in green. How many people a hall may hold, its doorways and escape routes are for your local code to say.</p>
      </section>
      <section>
        <h2 className="text-lg">Staff</h2>
        <ul className="mt-2 grid gap-2">
          {school.staff.map((member) => (
            <li key={member.id}>
              <b>{member.name}</b>
              <br />
              <span className="text-soft">
                {roles[member.role]}
                {' · '}
                {school.classes.filter((meeting) => meeting.staffIds.includes(member.id)).map((meeting) => meeting.name).join(', ') || 'no class'}
              </span>
            </li>
          ))}
        </ul>
      </section>
    </div>
  )
}
