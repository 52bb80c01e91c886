import type { ReactNode } from 'react'
import type { Schema } from '../api/client'
import { useWays } from '../shared/ways'
import { counted, weightWords } from '../ui/words'
import type { Count, PostureText } from './data'

/** The layers of a count in the order this school teaches them. */
export function useLayers() {
  const { ways } = useWays()
  const feetFirst = ['feet', 'waist', 'hands', 'gaze', 'breath'] as const
  const handsFirst = ['hands', 'waist', 'feet', 'gaze', 'breath'] as const
  return ways?.layers === 'handsFirst' ? handsFirst : feetFirst
}

/** One layer of one count in words; the feet come in the words of their notation. */
export const layerText = (
  count: Count,
  layer: 'feet' | 'waist' | 'hands' | 'gaze' | 'breath',
  said: Schema['CountWords'] | undefined,
): string => (layer === 'breath' ? count.breath : (said?.[layer] ?? ''))

/** A posture as it reads: key point, counts with their layers, and unless short its faults, checkpoints, images, application and cautions. */
export function PostureReading({
  reads,
  said,
  short = false,
}: {
  reads: PostureText
  said: Schema['CountWords'][]
  short?: boolean
}) {
  const layers = useLayers()
  return (
    <div className="grid gap-4">
      <p className="border-l-4 border-lacquer pl-3">
        <b>Key point</b> {reads.keyPoint}
      </p>
      <ol className="grid gap-1.5">
        {reads.counts.map((count, at) => (
          <li key={at} className="grid grid-cols-[22px_1fr] gap-2">
            <span className="font-serif text-base font-bold">{at + 1}</span>
            <span>
              <span className="text-lead font-semibold">{count.cue}</span>
              {count.onlyIf && <span className="text-soft"> ({count.onlyIf})</span>}
              <span className="block text-soft">
                {layers
                  .map((layer) => layerText(count, layer, said[at]))
                  .filter(Boolean)
                  .join(' · ')}
              </span>
            </span>
          </li>
        ))}
      </ol>
      {reads.cautions.length > 0 && (
        <Aside title="Cautions" tone="border-ochre-mark">
          {reads.cautions.map((caution) => (
            <p key={caution}>{caution}</p>
          ))}
        </Aside>
      )}
      {!short && <PostureAids reads={reads} />}
    </div>
  )
}

/** What helps to teach it: faults with their mends, checkpoints, images, application, aids that are not quite true. */
export function PostureAids({ reads, looked = [] }: { reads: PostureText; looked?: Schema['PostureLooked'][] }) {
  return (
    <>
      {reads.faults.length > 0 && (
        <section>
          <h3 className="mb-1 text-base">Usual faults</h3>
          <ul className="grid gap-2.5">
            {reads.faults.map((fault) => (
              <li key={fault.id}>
                <b>{fault.seen}</b> <span className="text-soft">({weightWords[fault.weight]})</span>
                {fault.causes.map((cause) => (
                  <span key={cause.why} className="block">
                    <span className="text-soft">Perhaps</span> {cause.why}. <span className="text-soft">Then:</span>{' '}
                    {cause.mend}.
                  </span>
                ))}
                {fault.causes.length === 0 && (
                  <span className="block text-soft">Nobody has written yet what causes it and how it is mended.</span>
                )}
                {fault.otherWays.length > 0 && (
                  <span className="block">
                    <span className="text-soft">Other ways to teach it:</span> {fault.otherWays.join('; ')}.
                  </span>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
      {reads.checkpoints.length > 0 && (
        <section>
          <h3 className="mb-1 text-base">Look at the end shape</h3>
          <ul className="grid gap-1">
            {reads.checkpoints.map((point, at) => {
              const measured = looked.find((one) => one.at === at)
              return (
                <li key={at}>
                  <b>{point.here}</b> against <b>{point.against}</b>: {point.tolerance}{' '}
                  <span className="text-soft">({point.seenFrom})</span>
                  {measured && (
                    <span className={`block ${measured.fulfilled ? 'text-soft' : 'text-lacquer'}`}>
                      On the figure: {measured.said}
                    </span>
                  )}
                </li>
              )
            })}
          </ul>
        </section>
      )}
      {(reads.images.length > 0 || reads.application) && (
        <section>
          <h3 className="mb-1 text-base">For the mind</h3>
          {reads.images.map((image) => (
            <p key={image}>Image: {image}.</p>
          ))}
          {reads.application && <p>What it is for: {reads.application}.</p>}
        </section>
      )}
      {reads.recording && <p>Our own recording: {reads.recording}.</p>}
      {reads.simplifications.length > 0 && (
        <section>
          <h3 className="mb-1 text-base">Not quite true, but helpful</h3>
          {reads.simplifications.map((aid) => (
            <p key={aid.says}>
              “{aid.says}” <span className="text-soft">What it gets wrong:</span> {aid.getsWrong}.{' '}
              <span className="text-soft">Replace it</span> {aid.replaceWhen}.
            </p>
          ))}
        </section>
      )}
      {reads.loop && (
        <section>
          <h3 className="mb-1 text-base">As a loop</h3>
          <p>
            From side to side; in between: {reads.loop.cue}.
            <span className="text-soft"> {[reads.loop.return, reads.loop.body].filter(Boolean).join(' · ')}</span>
          </p>
        </section>
      )}
      {reads.merged.length > 0 && (
        <section>
          <h3 className="mb-1 text-base">Called more coarsely</h3>
          <p>{reads.merged.map((call) => `${call.cue} (${counted(call.counts, 'count')})`).join(' · ')}</p>
        </section>
      )}
      {reads.changes.length > 0 && (
        <section>
          <h3 className="mb-1 text-base">Done differently since</h3>
          {reads.changes.map((change) => (
            <p key={change.id}>
              {change.from}: {change.difference}
            </p>
          ))}
        </section>
      )}
    </>
  )
}

export function Aside({ title, tone, children }: { title: string; tone: string; children: ReactNode }) {
  return (
    <section className={`border-l-4 pl-3 ${tone}`}>
      <h3 className="mb-1 text-base">{title}</h3>
      {children}
    </section>
  )
}
