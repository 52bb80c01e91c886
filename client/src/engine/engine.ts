import { useQuery } from '@tanstack/react-query'

/** What the compiled rules offer; see client/engine/FormsEngine.cs. A stand is a frame of sixteen numbers, a foot is 0 (left) or 1 (right). */
interface Exports {
  ReadSteps(text: string): string[]
  Complete(text: string): string[]
  ReadBody(text: string): string[]
  CompleteBody(text: string): string[]
  DrawFigure(
    entry: string,
    start: string,
    feet: string[],
    bodies: string[],
    mode: string,
    rail: string,
    pivotOnBall: boolean,
    count: number,
    part: number,
    view: string,
    turned: number,
    mirrored: boolean,
    sash: string,
    night: boolean,
  ): string[]
  MirrorSteps(text: string): string
  Walk(start: number[], counts: string[], pivotOnBall: boolean): number[]
  Check(entry: string, counts: string[], pivotOnBall: boolean, weightedPivots: boolean): string[]
  EndsIn(frame: number[]): string
  MoveFoot(steps: string, before: number[], pivotOnBall: boolean, foot: number, right: number, ahead: number): string
  TurnFoot(steps: string, before: number[], pivotOnBall: boolean, foot: number, toes: number): string
  WeighFoot(steps: string, before: number[], pivotOnBall: boolean, foot: number, load: number): string
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

export interface StepProblem {
  line: number
  column: number
  message: string
}

export interface StepReading {
  says: string
  printed: string
  problems: StepProblem[]
}

export interface StepFinding {
  count: number
  severity: 'Note' | 'Caution' | 'Error' | 'Impossible'
  foot: 'Left' | 'Right'
  message: string
}

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
      const [says = '', printed = '', ...rest] = read(text)
      const problems = chunks(rest, 3).map(([line, column, message]) => ({
        line: Number(line),
        column: Number(column),
        message: message!,
      }))
      const reading = { says, printed, problems }
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
  }

  /** A body at the end of a count, or a part of the way through it. */
  figure(of: Counted, count: number, part: number, seen: Seen): FigurePicture {
    const [box = '0 0 1 1', ...shapes] = this.core.DrawFigure(
      of.entry,
      of.start,
      of.feet,
      of.bodies,
      of.mode,
      of.rail,
      of.pivotOnBall,
      count,
      part,
      seen.view,
      seen.turned,
      seen.mirrored,
      seen.sash,
      seen.night,
    )
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

  mirror = (text: string) => this.core.MirrorSteps(text)

  /** For each count the frames it goes through. */
  walk(start: number[], counts: string[], pivots: Pivots): number[][][] {
    const numbers = this.core.Walk(start, counts, pivots.onBall)
    let at = 0
    return counts.map(() => {
      const frames = numbers[at++] ?? 0
      return Array.from({ length: frames }, () => numbers.slice(at, (at += FRAME)))
    })
  }

  check(entry: string, counts: string[], pivots: Pivots): StepFinding[] {
    return chunks(this.core.Check(entry, counts, pivots.onBall, pivots.weighted), 4).map(
      ([count, severity, foot, message]) => ({
        count: Number(count),
        severity: severity as StepFinding['severity'],
        foot: foot as StepFinding['foot'],
        message: message!,
      }),
    )
  }

  endsIn = (frame: number[]) => this.core.EndsIn(frame)

  moveFoot = (steps: string, before: number[], pivots: Pivots, foot: number, right: number, ahead: number) =>
    this.core.MoveFoot(steps, before, pivots.onBall, foot, right, ahead)

  turnFoot = (steps: string, before: number[], pivots: Pivots, foot: number, toes: number) =>
    this.core.TurnFoot(steps, before, pivots.onBall, foot, Math.round(toes))

  weighFoot = (steps: string, before: number[], pivots: Pivots, foot: number, load: number) =>
    this.core.WeighFoot(steps, before, pivots.onBall, foot, Math.round(load))

  turnHips = (steps: string, before: number[], pivots: Pivots, hips: number) =>
    this.core.TurnHips(steps, before, pivots.onBall, Math.round(hips))
}

function chunks(values: string[], size: number): string[][] {
  return Array.from({ length: Math.floor(values.length / size) }, (_, at) => values.slice(at * size, at * size + size))
}

async function load(): Promise<Engine> {
  const address = '/engine/dotnet.js'
  const { dotnet } = (await import(/* @vite-ignore */ address)) as Runtime
  const runtime = await dotnet.create()
  const { Zeitplan } = await runtime.getAssemblyExports('Zeitplan.Engine.dll')
  return new Engine(Zeitplan.Engine.FormsEngine)
}

/** The rules, once they are here; they are fetched when first asked for and stay. */
export function useEngine() {
  return useQuery({ queryKey: ['engine'], queryFn: load, staleTime: Infinity, gcTime: Infinity })
}
