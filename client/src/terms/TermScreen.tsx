import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import { answer, api, type Schema } from '../api/client'
import { useSignedIn } from '../app/session'
import { useKeys } from '../ui/keys'
import { Ribbon } from '../ui/Ribbon'
import { Empty, Failure, Heading, Refusal, Tabs, Waiting } from '../ui/states'
import { Weave } from '../ui/Weave'
import { dayMonth, people, shortDay, shortPosture } from '../ui/words'
import { ChipPanel, kindWords, LeftOverList } from './PlanDetails'

/** The term of one class as a weave: what is new in which lesson, and when it comes back. */
export function TermScreen() {
  const { isHead, today } = useSignedIn()
  const navigate = useNavigate()
  const { classId } = useParams()
  const queries = useQueryClient()
  const [chosen, setChosen] = useState<string>()
  const terms = useQuery({ queryKey: ['terms'], queryFn: () => answer(api.GET('/api/terms')) })
  const school = useQuery({ queryKey: ['people'], queryFn: () => answer(api.GET('/api/people')) })
  const term = terms.data?.find((candidate) => candidate.isCurrent)
  const meeting = school.data?.classes.find((candidate) => candidate.id === classId) ?? school.data?.classes.toSorted((a, b) => b.cohorts.length - a.cohorts.length)[0]
  const path = term && meeting ? { termId: term.id, classId: meeting.id } : undefined
  const key = ['plan', path?.termId, path?.classId]
  const plan = useQuery({ queryKey: key, enabled: path !== undefined, queryFn: () => answer(api.GET('/api/terms/{termId}/classes/{classId}/plan', { params: { path: path! } })) })
  const planTerm = useMutation({
    mutationFn: () => answer(api.POST('/api/terms/{termId}/classes/{classId}/plan', { params: { path: path! } })),
    onSuccess: (made) => {
      queries.setQueryData(key, made)
      void queries.invalidateQueries({ queryKey: ['today'] })
      void queries.invalidateQueries({ queryKey: ['lessons'] })
      void queries.invalidateQueries({ queryKey: ['safety'] })
    },
  })
  useKeys((event) => {
    if (event.key !== 'Escape' || !chosen) return false
    setChosen(undefined)
    return true
  })

  const failed = terms.error ?? school.error ?? plan.error
  if (failed) return <Failure error={failed} retry={() => void queries.invalidateQueries()} />
  if (!terms.data || !school.data) return <Waiting what="Opening the term" />
  if (!term) return <Empty>There is no term yet. Add one, with its closures and test days, before planning.</Empty>
  if (!meeting) return <Empty>There is no class yet. Add one under People, then assign each cohort a segment.</Empty>
  if (!plan.data) return <Waiting what="Opening the term" />

  const data = plan.data
  const column = Object.fromEntries(data.lessons.map((lesson, at) => [lesson.date, at]))
  const chip = data.rows.flatMap((row) => row.chips.map((one) => ({ row, one }))).find(({ row, one }) => chipId(row, one) === chosen)
  const lessons = data.lessons.filter((lesson) => lesson.number !== null)
  const left = data.rows.flatMap((row) => row.leftOver.map((item) => ({ row, item })))
  const next = lessons.find((lesson) => !lesson.held)
  return (
    <>
      <Heading
        title={`${data.term} · ${data.class}`}
        facts={`${lessons.length} lessons, ${dayMonth(term.start)} to ${dayMonth(term.end)} · ${data.lessons.length - lessons.length} closed · ${lessons.filter((lesson) => lesson.held).length} held`}
      >
        {left.length > 0 && (
          <a href="#left-over" className="font-bold text-ochre underline underline-offset-3">
            {left.length === 1 ? '1 thing does not fit' : `${left.length} things do not fit`}
          </a>
        )}
        {data.outOfDate && <span className="font-bold text-ochre">Changed since it was planned</span>}
        {school.data.classes.length > 1 && (
          <Tabs label="Class" value={meeting.id} options={school.data.classes.map((one) => ({ value: one.id, name: one.name }))} onChange={(id) => void navigate(`/term/${id}`)} />
        )}
        {isHead && (
          <button type="button" className="button button-primary" onClick={() => planTerm.mutate()} disabled={planTerm.isPending}>
            {planTerm.isPending ? 'Planning…' : data.plannedAt ? `Plan the term from ${next ? shortDay(next.date) : 'here'}` : 'Plan the term'}
          </button>
        )}
      </Heading>
      {planTerm.isError && (
        <div className="px-5 pb-3">
          <Refusal error={planTerm.error} />
        </div>
      )}
      {!data.plannedAt ? (
        <Empty>
          {data.rows.some((row) => row.assigned) ? 'This term has not been planned. “Plan the term” spreads what is assigned over its lessons.' : 'No cohort of this class has a segment yet. Assign one under People, then plan.'}
        </Empty>
      ) : (
        <div className={`grid flex-1 ${chip ? 'xl:grid-cols-[minmax(0,1fr)_320px]' : ''}`}>
          <div className="min-w-0">
            <Weave
              label={`${data.term}, ${data.class}`}
              columns={data.lessons.map((lesson) => ({
                id: lesson.date,
                closed: lesson.closed ?? undefined,
                current: lesson.date === next?.date,
                past: lesson.held && lesson.date < today,
                head: (
                  <>
                    <span className="font-bold">{lesson.number ?? '–'}</span> <span className="text-soft">{shortDay(lesson.date)}</span>
                  </>
                ),
              }))}
              rows={data.rows.map((row) => ({
                id: row.cohortId,
                colour: row.colour,
                head: <RowHead row={row} />,
                chips: row.chips.map((one) => ({
                  id: chipId(row, one),
                  column: column[one.date] ?? 0,
                  name: shortPosture(one.name),
                  quiet: one.kind !== 'posture',
                  knots: one.reviews.map((review) => column[review.date] ?? 0),
                  done: one.taught,
                  says: `${kindWords[one.kind]}${one.name}, ${row.name}, ${one.taught ? 'taught' : 'new'} on ${dayMonth(one.date)}, ${one.minutes} minutes, reviewed ${one.reviews.map((review) => dayMonth(review.date)).join(', ') || 'next term'}`,
                })),
                boxes: row.runThroughs.map((run) => ({ column: column[run.date] ?? 0, name: run.kind === 'test' ? 'Test' : 'Run-through' })),
              }))}
              foot={{
                head: (
                  <>
                    <span className="font-bold">Teachers’ minutes</span>
                    <br />
                    <span className="text-soft">used, of what there is</span>
                  </>
                ),
                cells: data.lessons.map((lesson) => <Minutes key={lesson.date} lesson={lesson} />),
              }}
              chosen={chosen}
              onChoose={(id) => setChosen(id === chosen ? undefined : id)}
            />
            <LeftOverList left={left} />
          </div>
          {chip && <ChipPanel cohort={chip.row} chip={chip.one} close={() => setChosen(undefined)} />}
        </div>
      )}
    </>
  )
}

const chipId = (row: Schema['PlanRow'], chip: Schema['PlanChip']) => [row.cohortId, chip.kind, chip.from?.postureId, chip.from?.side, chip.postureId, chip.side].join(' ')

function RowHead({ row }: { row: Schema['PlanRow'] }) {
  const left = row.leftOver.reduce((sum, item) => sum + item.minutes, 0).toFixed(1)
  return (
    <div className="flex h-full items-center gap-2.5 px-3 py-2">
      <Ribbon colour={row.colour} half={row.half} size={30} />
      <div className="leading-snug">
        <span className="font-serif text-[15px] font-bold">{row.name}</span>
        <br />
        <span className="text-[13.5px] text-soft">
          {people(row.people)}
          {row.mode !== 'standing' && ` · ${row.mode}`}
        </span>
        <br />
        <span className="text-[13.5px] text-soft">
          {!row.assigned ? 'nothing assigned' : row.finish ? (
            <>
              all met by <b className="text-ink">{shortDay(row.finish)}</b>
            </>
          ) : row.leftOver.length > 0 ? <b className="text-ochre">{left} min do not fit</b> : 'all known already'}
        </span>
      </div>
    </div>
  )
}

function Minutes({ lesson }: { lesson: Schema['PlanColumn'] }) {
  if (lesson.ledMinutes === null || lesson.teacherMinutes === null) return null
  const share = lesson.ledMinutes / lesson.teacherMinutes
  const full = share > 0.9
  return (
    <>
      <span className="block h-2 overflow-hidden rounded bg-fine" aria-hidden>
        <span className={`block h-full ${full ? 'bg-ochre-mark' : 'bg-pine'}`} style={{ width: `${Math.min(100, share * 100)}%` }} />
      </span>
      <span className={`text-[13.5px] whitespace-nowrap ${full ? 'font-bold text-ochre' : 'text-soft'}`}>
        {Math.round(lesson.ledMinutes)} of {lesson.teacherMinutes}
      </span>
    </>
  )
}
