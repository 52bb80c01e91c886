import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { SmallFigure } from '../shared/SmallFigure'
import { postureQuery, posturesQuery } from '../shared/material'
import type { Schema } from '../api/client'
import { useEngine, type FigurePicture } from '../engine/engine'
import { useSignedIn } from '../shared/session'
import { useSearch } from '../shared/search'
import { useWays } from '../shared/ways'
import { useKeys } from '../ui/keys'
import { Figure } from '../ui/Figure'
import { Kbd } from '../ui/Kbd'
import { Failure, Heading, Waiting } from '../ui/states'
import { ToggleGroup } from '../ui/ToggleGroup'
import { demandWords } from '../ui/words'
import { FormsNav } from './FormsNav'
import { Beside } from './Beside'
import { PostureEditor } from './PostureEditor'
import { PostureEffort } from './PostureEffort'
import { PostureFloor } from './PostureFloor'
import { Aside, layerText, PostureAids, useLayers } from './PostureReading'
import type { Count } from './data'
import { countedOf, hasBody } from '../shared/counted'
import { FROM_THE_FRONT } from './PostureFigure'

const layerWords = { feet: 'Feet', waist: 'Waist', hands: 'Hands', gaze: 'Gaze', breath: 'Breath' } as const

/** A posture on one side: standard and adapted versions beside each other, count against count; its picture; what helps to teach it. The head edits it here. */
export function PostureScreen() {
  const { postureId } = useParams()
  const { isHead } = useSignedIn()
  const { ways } = useWays()
  const [search, set] = useSearch()
  const navigate = useNavigate()
  const back = search.get('back')
  const asked = search.get('side')
  const posture = useQuery(postureQuery(postureId, asked === 'left' || asked === 'right' ? asked : undefined))
  const postures = useQuery(posturesQuery())
  const data = posture.data
  useKeys((event) => {
    if (event.key !== 'm' || !data || data.side === 'symmetric' || search.get('edit') === '1') return false
    set({ side: data.side === 'left' ? 'right' : 'left' })
    return true
  })

  if (posture.isError) return <Failure error={posture.error} retry={() => void posture.refetch()} />
  if (!data) return <Waiting what="Opening the posture" />
  if (search.get('edit') === '1' && isHead)
    return (
      <PostureEditor
        key={data.id}
        posture={data}
        postures={postures.data ?? []}
        done={() => (back ? void navigate(back) : set({ edit: null, version: null }))}
      />
    )

  const { reads } = data
  const shown = reads.versions.filter((version) => search.get('with') === null || version.mode === search.get('with'))
  const nameOf = (id: string) => postures.data?.find((one) => one.id === id)?.name ?? ''
  const custom =
    ways &&
    [
      ways.trunkInclined ? 'trunk inclined' : 'trunk upright',
      ways.risesAndSinks ? 'rises and sinks' : 'level height, each person’s own',
      ways.kneeOverToes ? 'knee over the toes at most' : 'knee not past the toes',
      ways.closesTogether ? 'side-steps close together' : 'side-steps close to shoulder width',
      ways.toeTouchAllowed ? '' : 'no toe-touch',
    ]
      .filter(Boolean)
      .join(', ')
  return (
    <>
      <FormsNav here="/forms/postures" />
      <Heading
        title={
          <>
            {reads.name}
            {data.side !== 'symmetric' && <span className="font-normal">, {data.side}</span>}
          </>
        }
        facts={[
          reads.otherNames.length > 0 && `also ${reads.otherNames.join('; ')}`,
          reads.family,
          ['easy', 'middling', 'hard'][reads.difficulty - 1],
          data.usedIn.map((use) => `${use.positions} × in ${use.form}`).join(', '),
          data.retired && 'no longer in the catalogue; it stays in what was recorded',
        ]
          .filter(Boolean)
          .join(' · ')}
      >
        {data.side !== 'symmetric' && (
          <ToggleGroup
            label="Side"
            value={data.side}
            options={[
              { value: 'left', name: 'Left' },
              { value: 'right', name: 'Right' },
            ]}
            onChange={(side) => set({ side })}
          />
        )}
        {data.side !== 'symmetric' && <Kbd>m</Kbd>}
        {isHead && !data.retired && (
          <button type="button" className="button button-primary" onClick={() => set({ edit: '1' })}>
            Edit the posture
          </button>
        )}
      </Heading>
      <div className="grid flex-1 gap-0 border-t border-line xl:grid-cols-[minmax(0,1fr)_400px]">
        <div className="grid content-start gap-5 bg-paper p-5">
          <p className="border-l-4 border-lacquer pl-3 text-lead">
            <b>Key point</b> {reads.keyPoint}
          </p>
          {reads.builtFrom && (
            <p>
              Built from{' '}
              <Link className="quiet-link" to={`/forms/postures/${reads.builtFrom.postureId}`}>
                {nameOf(reads.builtFrom.postureId)}
              </Link>
              : only the counts marked <b>new</b> are a difference to learn.
            </p>
          )}
          {reads.parts.length > 0 && (
            <ol aria-label="Its parts" className="flex flex-wrap gap-6">
              {reads.parts.map((part, at) => (
                <li key={at} className="grid justify-items-center gap-1">
                  <SmallFigure postureId={part.postureId} side={part.side} className="h-32" />
                  <Link className="quiet-link" to={`/forms/postures/${part.postureId}?side=${part.side}`}>
                    {at + 1} {nameOf(part.postureId)}
                    {part.side !== 'symmetric' && `, ${part.side}`}
                  </Link>
                </li>
              ))}
            </ol>
          )}
          {reads.versions.length > 0 && (
            <ToggleGroup
              label="Beside the standard version"
              value={search.get('with') ?? 'all'}
              options={[
                { value: 'all', name: 'All versions' },
                ...reads.versions.map((version) => ({
                  value: version.mode,
                  name: version.mode[0]!.toUpperCase() + version.mode.slice(1),
                })),
              ]}
              onChange={(mode) => set({ with: mode === 'all' ? null : mode })}
            />
          )}
          {reads.counts.length > 0 && <CountTable posture={data} versions={shown} />}
          {hasBody(reads.counts) && <Beside posture={data} postures={postures.data ?? []} />}
          {reads.counts.length > 0 && <AsksInModes modes={data.modes} usedIn={data.usedIn} />}
          <FoundInModes modes={data.modes} counts={data.reads.counts.length} />
          {custom && <p className="text-soft">In this school: {custom}.</p>}
          <PostureEffort id={data.id} side={data.side} />
        </div>
        <aside className="grid content-start gap-5 border-l border-line p-5">
          {reads.counts.some((count) => count.feet) && (
            <PostureFloor
              entry={reads.entry}
              start={reads.start}
              bodies={reads.counts.map((count) => count.body)}
              counts={reads.counts.map((count) => count.feet)}
              cues={reads.counts.map((count) => count.cue)}
              ends={reads.end}
              loop={reads.loop}
            />
          )}
          {reads.cautions.length > 0 && (
            <Aside title="Cautions" tone="border-ochre-mark">
              {reads.cautions.map((caution) => (
                <p key={caution}>{caution}</p>
              ))}
              <p className="text-soft">
                Work within a comfortable range; stop at pain, dizziness, breathlessness or chest discomfort and get
                help. A student’s own clinician comes first.
              </p>
            </Aside>
          )}
          <PostureAids reads={reads} looked={data.looked} />
        </aside>
      </div>
    </>
  )
}

/** What each written mode asks of a body, with what asks for it; and what the ways into it ask of whoever does not sit. */
function AsksInModes({ modes, usedIn }: Pick<Schema['PostureResponse'], 'modes' | 'usedIn'>) {
  return (
    <section>
      <h3 className="mb-1 text-base">What it asks of a body</h3>
      <dl className="grid grid-cols-[100px_1fr] gap-x-3 gap-y-1">
        {modes.map(({ mode, isKnown, asks, takenOff }) => (
          <div key={mode} className="contents">
            <dt className="font-semibold">{mode}</dt>
            <dd>
              {!isKnown && (
                <span className="text-lacquer">
                  not known: not every count is notated; nobody with limits is given it.{' '}
                </span>
              )}
              {asks.map(({ demand, because }, at) => (
                <span key={demand} title={because}>
                  {at > 0 && ', '}
                  {demandWords[demand]}
                </span>
              ))}
              {isKnown && asks.length === 0 && <span className="text-soft">nothing of what limits name</span>}
              {takenOff.map(({ demand, reason }) => (
                <span key={demand} className="block text-soft">
                  not {demandWords[demand]}: “{reason}”
                </span>
              ))}
            </dd>
          </div>
        ))}
      </dl>
      {usedIn
        .filter((use) => use.wayInAsks.length > 0)
        .map((use) => (
          <p key={use.formId} className="mt-1">
            In {use.form} the way into it asks whoever does not sit for{' '}
            {use.wayInAsks.map((demand) => demandWords[demand]).join(', ')}.
          </p>
        ))}
    </section>
  )
}

/** What the checks find and nobody has settled yet. */
function FoundInModes({ modes, counts }: { modes: Schema['PostureInMode'][]; counts: number }) {
  const open = modes.flatMap(({ mode, findings }) =>
    findings.filter((finding) => finding.acceptedBecause === null).map((finding) => ({ mode, ...finding })),
  )
  if (open.length === 0) return null
  const isBack = (mode: Schema['Mode'], count: number) => mode === 'standing' && count > counts
  return (
    <section>
      <h3 className="mb-1 text-base">To mend, or to keep as our way</h3>
      {open.map(({ mode, count, message }, at) => (
        <p key={at} role="note" className="border-l-4 border-ochre-mark pl-3">
          <b>
            {mode}, {count === 0 ? 'where it starts' : isBack(mode, count) ? 'on the way back' : `count ${count}`}
          </b>
          . {message}
        </p>
      ))}
    </section>
  )
}

/** Standard beside adapted, count against count. */
function CountTable({
  posture,
  versions,
}: {
  posture: Schema['PostureResponse']
  versions: Schema['AdaptedVersion'][]
}) {
  const { pivots } = useWays()
  const engine = useEngine().data
  const [search, set] = useSearch()
  const inWords = search.get('counts') === 'words'
  const all = useLayers()
  const { reads } = posture
  // A figure says where the hands are and where the eyes look sooner than words do.
  const layers = inWords ? all : all.filter((layer) => layer === 'feet' || layer === 'breath')
  const figures = useMemo(() => {
    if (!engine || inWords) return null
    const drawn = (version?: Schema['AdaptedVersion']) =>
      hasBody((version ?? reads).counts)
        ? (version ?? reads).counts.map((_, at) =>
            engine.figure(countedOf(reads, version, pivots.onBall), at + 1, 1, FROM_THE_FRONT),
          )
        : []
    return { standing: drawn(), versions: versions.map(drawn) }
  }, [engine, inWords, reads, versions, pivots.onBall])
  const rows = Math.max(reads.counts.length, ...versions.map((version) => version.counts.length))
  const own = posture.text.counts
  const isNew = (at: number) =>
    reads.builtFrom !== null && own[at] !== undefined && (own[at].as === 0 || own[at].cue !== '')
  return (
    <div className="overflow-x-auto">
      <ToggleGroup
        label="Every count"
        value={inWords ? 'words' : 'figures'}
        options={[
          { value: 'figures', name: 'As figures' },
          { value: 'words', name: 'In words' },
        ]}
        onChange={(counts) => set({ counts: counts === 'words' ? 'words' : null })}
      />
      <table className="mt-3 w-full border-collapse">
        <thead>
          <tr className="border-b border-line text-left align-top">
            <th className="w-8" />
            <th className="min-w-44 py-1.5 pr-4 font-semibold">Standing</th>
            {versions.map((version) => (
              <th key={version.mode} className="min-w-40 py-1.5 pr-4 font-semibold">
                {version.mode[0]!.toUpperCase() + version.mode.slice(1)}
                <span className="block font-normal text-soft">{version.replaces}</span>
                {version.keeps && <span className="block font-normal text-soft">Keeps: {version.keeps}</span>}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {Array.from({ length: rows }, (_, at) => (
            <tr key={at} className="border-b border-fine align-top">
              <th scope="row" className="py-2 text-left font-serif text-base">
                {at + 1}
              </th>
              <td className="py-2 pr-4">
                {reads.counts[at] && (
                  <CountCell
                    count={reads.counts[at]}
                    said={posture.said[at]}
                    layers={layers}
                    marked={isNew(at)}
                    figure={figures?.standing[at]}
                  />
                )}
              </td>
              {versions.map((version, column) => (
                <td key={version.mode} className="py-2 pr-4">
                  {version.counts[at] && (
                    <CountCell
                      count={version.counts[at]}
                      said={posture.versionsSaid.find((one) => one.mode === version.mode)?.counts[at]}
                      layers={layers}
                      figure={figures?.versions[column]?.[at]}
                    />
                  )}
                </td>
              ))}
            </tr>
          ))}
          {versions.length > 0 && (
            <tr className="align-top">
              <th />
              <td />
              {versions.map((version) => (
                <td key={version.mode} className="py-2 pr-4">
                  <div className="border-l-4 border-ochre-mark pl-3">
                    {version.cautions.map((caution) => (
                      <p key={caution}>{caution}</p>
                    ))}
                  </div>
                  {version.progression.length > 0 && (
                    <p className="mt-2 text-soft">Grows: {version.progression.join(', then ')}.</p>
                  )}
                  {version.mode === 'seated' && (
                    <p className="mt-1 text-soft">
                      {posture.modes.find((one) => one.mode === 'seated')?.feetCarry
                        ? 'The feet carry: not on the footplates of a wheelchair.'
                        : 'The seat alone carries: it can be done on footplates.'}
                    </p>
                  )}
                  {version.rail && (
                    <p className="mt-1 text-soft">
                      {version.rail === 'symmetric'
                        ? 'The rail is before the body.'
                        : `The rail is on the ${version.rail} of the body.`}
                    </p>
                  )}
                </td>
              ))}
            </tr>
          )}
        </tbody>
      </table>
    </div>
  )
}

function CountCell({
  count,
  said,
  layers,
  marked = false,
  figure,
}: {
  count: Count
  said: Schema['CountWords'] | undefined
  layers: readonly (keyof typeof layerWords)[]
  marked?: boolean
  figure: FigurePicture | undefined
}) {
  return (
    <>
      {figure && (
        <Figure
          {...figure}
          className="mb-1 h-28"
          label={[said?.hands, said?.gaze].filter(Boolean).join('; ') || count.cue}
        />
      )}
      <span className="text-lead font-semibold">
        {count.cue}
        {marked && <span className="ml-2 rounded bg-pine-tint px-1.5 text-small text-pine">new</span>}
      </span>
      {count.onlyIf && <span className="block text-soft">only {count.onlyIf}</span>}
      <dl className="grid grid-cols-[52px_1fr] gap-x-2">
        {layers.map((layer) => {
          const text = layerText(count, layer, said)
          return text ? (
            <div key={layer} className="contents">
              <dt className="text-small text-soft">{layerWords[layer]}</dt>
              <dd>{text}</dd>
            </div>
          ) : null
        })}
      </dl>
    </>
  )
}
