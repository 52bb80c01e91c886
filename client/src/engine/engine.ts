import { queryOptions, useQuery } from '@tanstack/react-query'
import type { Schema } from '../api/client'
import { fetched } from '../shared/fetched'

/** What the compiled rules offer; see client/engine/FormsEngine.cs. A stand is a frame of sixteen numbers, a foot is 0 (left) or 1 (right). */
interface Exports {
  ReadSteps(text: string): string[]
  Complete(text: string): string[]
  ReadBody(text: string): string[]
  CompleteBody(text: string): string[]
  DrawFigure(
    run: string,
    count: number,
    part: number,
    view: string,
    turned: number,
    mirrored: boolean,
    sash: string,
    night: boolean,
  ): string
  Round(run: string, back: string[]): string[]
  Walk(start: number[], counts: string[], pivotOnBall: boolean): number[]
  Check(
    run: string,
    breaths: string[],
    measures: string[],
    weightedPivots: boolean,
    handsSettleAfter: boolean,
  ): string[]
  CheckLoop(run: string, loop: string[], weightedPivots: boolean, handsSettleAfter: boolean): string[]
  Asks(run: string, words: string[]): string[]
  Look(run: string, measure: string): string[]
  Differ(run: string, otherRun: string, view: string): string[]
  HandsAt(run: string, count: number, view: string, turned: number, mirrored: boolean): number[]
  MoveHand(
    run: string,
    count: number,
    view: string,
    turned: number,
    mirrored: boolean,
    hand: number,
    x: number,
    y: number,
  ): string
  NudgeHand(run: string, count: number, hand: number, up: number, outwards: number, ahead: number): string
  HandSaid(run: string, count: number, hand: number): string[]
  SayOfHand(text: string, hand: number, detail: string): string
  ReadMeasure(text: string): string[]
  CompleteMeasure(text: string): string[]
  EndsIn(frame: number[]): string
  MoveFoot(steps: string, before: number[], pivotOnBall: boolean, foot: number, right: number, ahead: number): string
  TurnFoot(steps: string, before: number[], pivotOnBall: boolean, foot: number, toes: number): string
  WeighFoot(steps: string, before: number[], pivotOnBall: boolean, foot: number, load: number): string
  LaterBlocks(blocks: number[], from: number, until: number): number[]
  TurnHips(steps: string, before: number[], pivotOnBall: boolean, hips: number): string
}

interface Runtime {
  dotnet: {
    create(): Promise<{ getAssemblyExports(name: string): Promise<{ Zeitplan: { Engine: { FormsEngine: Exports } } }> }>
  }
}

/** How this school turns a foot, and whether it turns loaded ones. */
export interface Pivots {
  onBall: boolean
  weighted: boolean
}

/** What of the school's ways the checks go by. */
export interface Ways extends Pivots {
  handsSettle: boolean
}

export interface StepProblem {
  line: number
  column: number
  message: string
}

export interface StepReading {
  says: string
  problems: StepProblem[]
}

/** What the checks find in a posture, and what would settle it: counts written anew. */
export interface PostureFinding {
  rule: Schema['Rule']
  severity: Schema['Severity']
  count: number
  message: string
  mends: { label: string; edits: { count: number; feet: string; body: string }[] }[]
}

/** What a run of counts asks of a body; not known where it is not notated. */
export interface Asks {
  known: boolean
  asks: { demand: Schema['Demand']; count: number; because: string }[]
}

/** A joint that is elsewhere: how far, centimetres, and where on the pictures of both. */
export interface JointDifference {
  joint: string
  apart: number
  here: { x: number; y: number }
  there: { x: number; y: number }
}

/** 0 is the left hand, 1 the right one. */
export type HandSide = 0 | 1

export const FRAME = 16

/** One of the two notations: what a text means and what is wrong with it, and the words that could come next. */
export interface Notation {
  read: (text: string) => StepReading
  complete: (text: string) => string[]
}

/** A run of counts to be drawn as a body. */
export interface Counted {
  entry: string
  start: string
  feet: string[]
  bodies: string[]
  /** The mode it is drawn in, and on which side of it a rail is: what steadies it. */
  mode: string
  rail: string
  pivotOnBall: boolean
}

/** The views of a figure that have a name. */
export const views = ['front', 'behind', 'left', 'right', 'above'] as const
export type View = (typeof views)[number]

/** From where a figure is seen, and in which colours. */
export interface Seen {
  view: View
  /** Degrees it is turned from that view. */
  turned: number
  mirrored: boolean
  /** Nothing for a sash that is nobody's. */
  sash: string
  night: boolean
}

export interface FigurePicture {
  box: string
  shapes: { path: string; fill: string; edge: string; width: number }[]
}

function notation(read: (text: string) => string[], complete: (text: string) => string[]): Notation {
  // The same line is asked about by the field, the buttons and the picture.
  let last: { text: string; reading: StepReading } | null = null
  return {
    complete,
    read: (text) => {
      if (last?.text === text) return last.reading
      const [says = '', ...rest] = read(text)
      const problems = chunks(rest, 3).map(([line, column, message]) => ({
        line: Number(line),
        column: Number(column),
        message: message!,
      }))
      const reading = { says, problems }
      last = { text, reading }
      return reading
    },
  }
}

/** Core's step notation and two feet, running in the page so that the picture follows every keystroke. */
export class Engine {
  private readonly core: Exports
  readonly steps: Notation
  readonly body: Notation
  readonly measure: Notation

  constructor(core: Exports) {
    this.core = core
    this.steps = notation(
      (text) => core.ReadSteps(text),
      (text) => core.Complete(text),
    )
    this.body = notation(
      (text) => core.ReadBody(text),
      (text) => core.CompleteBody(text),
    )
    this.measure = notation(
      (text) => core.ReadMeasure(text),
      (text) => core.CompleteMeasure(text),
    )
  }

  /** A body at the end of a count, or a part of the way through it. */
  figure(of: Counted, count: number, part: number, seen: Seen): FigurePicture {
    const [box = '0 0 1 1', ...shapes] = this.core
      .DrawFigure(run(of), count, part, seen.view, seen.turned, seen.mirrored, seen.sash, seen.night)
      .split('\n')
    return {
      box,
      shapes: chunks(shapes, 4).map(([path, fill, edge, width]) => ({
        path: path!,
        fill: fill!,
        edge: edge!,
        width: Number(width),
      })),
    }
  }

  /** Once round as a loop, ready to begin again: on both sides where its return leads to the other one. */
  round(of: Counted, loop: Schema['Loop']): Counted {
    const round = this.core.Round(run(of), [loop.return, loop.body])
    return { ...of, feet: round.slice(0, round.length / 2), bodies: round.slice(round.length / 2) }
  }

  /** For each count the frames it goes through. */
  walk(start: number[], counts: string[], pivots: Pivots): number[][][] {
    const numbers = this.core.Walk(start, counts, pivots.onBall)
    let at = 0
    return counts.map(() => {
      const frames = numbers[at++] ?? 0
      return Array.from({ length: frames }, () => numbers.slice(at, (at += FRAME)))
    })
  }

  check(of: Counted, breaths: string[], measures: string[], ways: Ways): PostureFinding[] {
    return findings(this.core.Check(run(of), breaths, measures, ways.weighted, ways.handsSettle))
  }

  /** What is found on the way back, as the count after the last. */
  checkLoop(of: Counted, loop: Schema['Loop'], ways: Ways): PostureFinding[] {
    return findings(this.core.CheckLoop(run(of), [loop.return, loop.body], ways.weighted, ways.handsSettle))
  }

  /** @param words Free words of each count, which tell nobody what a body has to do. */
  asks(of: Counted, words: string[]): Asks {
    const [known, ...asks] = this.core.Asks(run(of), words)
    return {
      known: known !== '',
      asks: chunks(asks, 3).map(([demand, count, because]) => ({
        demand: lowerFirst(demand!) as Schema['Demand'],
        count: Number(count),
        because: because!,
      })),
    }
  }

  /** What a checkpoint measures on the end shape; null where nothing is measured. */
  look(of: Counted, measure: string): { fulfilled: boolean; says: string } | null {
    const [fulfilled, says] = this.core.Look(run(of), measure)
    return says === undefined ? null : { fulfilled: fulfilled !== '', says }
  }

  /** The joints that are elsewhere in the end shape of another: how far, and where on either picture. */
  differ(one: Counted, other: Counted, view: View): JointDifference[] {
    return chunks(this.core.Differ(run(one), run(other), view), 6).map(([joint, apart, ...at]) => {
      const [x = 0, y = 0, otherX = 0, otherY = 0] = at.map(Number)
      return { joint: joint!, apart: Number(apart), here: { x, y }, there: { x: otherX, y: otherY } }
    })
  }

  /** Where both hands are on the picture of the end of a count. */
  handsAt(of: Counted, count: number, seen: Seen): [{ x: number; y: number }, { x: number; y: number }] {
    const [lx = 0, ly = 0, rx = 0, ry = 0] = this.core.HandsAt(run(of), count, seen.view, seen.turned, seen.mirrored)
    return [
      { x: lx, y: ly },
      { x: rx, y: ry },
    ]
  }

  /** The body notation of a count once a hand has been dragged to a point of the picture. */
  moveHand(of: Counted, count: number, seen: Seen, hand: HandSide, to: { x: number; y: number }): string {
    return this.core.MoveHand(run(of), count, seen.view, seen.turned, seen.mirrored, hand, to.x, to.y)
  }

  /** The same, one word higher, outwards or ahead; or the other way. */
  nudgeHand(
    of: Counted,
    count: number,
    hand: HandSide,
    by: { up?: number; outwards?: number; ahead?: number },
  ): string {
    return this.core.NudgeHand(run(of), count, hand, by.up ?? 0, by.outwards ?? 0, by.ahead ?? 0)
  }

  /** How a hand is when a count ends, in the words it is written in. */
  handSaid(of: Counted, count: number, hand: HandSide) {
    const [palm = '', fingers = '', shape = '', elbow = '', holds = ''] = this.core.HandSaid(run(of), count, hand)
    return { palm, fingers, shape, elbow, holds }
  }

  sayOfHand = (text: string, hand: HandSide, detail: string) => this.core.SayOfHand(text, hand, detail)

  endsIn = (frame: number[]) => this.core.EndsIn(frame)

  moveFoot = (steps: string, before: number[], pivots: Pivots, foot: number, right: number, ahead: number) =>
    this.core.MoveFoot(steps, before, pivots.onBall, foot, right, ahead)

  turnFoot = (steps: string, before: number[], pivots: Pivots, foot: number, toes: number) =>
    this.core.TurnFoot(steps, before, pivots.onBall, foot, Math.round(toes))

  weighFoot = (steps: string, before: number[], pivots: Pivots, foot: number, load: number) =>
    this.core.WeighFoot(steps, before, pivots.onBall, foot, Math.round(load))

  /** What is left of a lesson that goes on later while nobody can arrange it anew: parts of its blocks. */
  laterBlocks<B extends { start: number; end: number; cohortId: string | null }>(
    blocks: B[],
    from: number,
    until: number,
  ): B[] {
    const numbers = this.core.LaterBlocks(
      blocks.flatMap((block) => [block.start, block.end, block.cohortId === null ? 1 : 0]),
      from,
      until,
    )
    return Array.from({ length: numbers.length / 3 }, (_, at) => ({
      ...blocks[numbers[3 * at]!]!,
      start: numbers[3 * at + 1]!,
      end: numbers[3 * at + 2]!,
    }))
  }

  turnHips = (steps: string, before: number[], pivots: Pivots, hips: number) =>
    this.core.TurnHips(steps, before, pivots.onBall, Math.round(hips))
}

/** Between the parts of what is said to the rules and by them; nobody types it. */
const APART = '\u001f'

const written = new WeakMap<Counted, string>()

/** A run of counts as the compiled rules take it: one text, which is put together once. */
function run(of: Counted): string {
  const known = written.get(of)
  if (known !== undefined) return known
  const counts = of.feet.flatMap((feet, at) => [feet, of.bodies[at]!])
  const text = [of.entry, of.start, of.mode, of.rail, of.pivotOnBall ? 'ball' : '', ...counts].join(APART)
  written.set(of, text)
  return text
}

const lowerFirst = (word: string) => word[0]!.toLowerCase() + word.slice(1)

const findings = (told: string[]): PostureFinding[] =>
  chunks(told, 5).map(([rule, severity, count, message, mends]) => ({
    rule: lowerFirst(rule!) as Schema['Rule'],
    severity: lowerFirst(severity!) as Schema['Severity'],
    count: Number(count),
    message: message!,
    mends: mends === '' ? [] : mends!.split('\n').map(readMend),
  }))

function readMend(line: string): PostureFinding['mends'][number] {
  const [label, ...edits] = line.split(APART)
  return {
    label: label!,
    edits: chunks(edits, 3).map(([count, feet, body]) => ({ count: Number(count), feet: feet!, body: body! })),
  }
}

function chunks(values: string[], size: number): string[][] {
  return Array.from({ length: Math.floor(values.length / size) }, (_, at) => values.slice(at * size, at * size + size))
}

async function load(): Promise<Engine> {
  const address = '/engine/dotnet.js'
  const { dotnet } = (await fetched(() => import(/* @vite-ignore */ address))) as Runtime
  const runtime = await dotnet.create()
  const { Zeitplan } = await runtime.getAssemblyExports('Zeitplan.Engine.dll')
  return new Engine(Zeitplan.Engine.FormsEngine)
}

/** The rules; they are fetched when first asked for and stay. */
export const loadEngine = () =>
  queryOptions({ queryKey: ['engine'], queryFn: load, staleTime: Infinity, gcTime: Infinity })

/** The rules, once they are here. */
export const useEngine = () => useQuery(loadEngine())
