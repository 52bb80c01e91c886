import type { PostureText } from './data'

/** What a new posture starts from: enough to be kept, and nothing that is not so. */
export const emptyPosture: PostureText = {
  name: '',
  otherNames: [],
  kind: 'posture',
  family: '',
  writtenSide: 'left',
  namedBy: 'leadingFoot',
  difficulty: 1,
  keyPoint: 'the one thing kept when everything else gives way',
  parts: [],
  builtFrom: null,
  needs: [],
  entry: '',
  start: '',
  counts: [
    {
      cue: 'first count',
      feet: '',
      body: '',
      waist: '',
      hands: '',
      gaze: '',
      breath: '',
      shape: '',
      onlyIf: '',
      as: 0,
      pictured: false,
    },
  ],
  merged: [],
  end: null,
  loop: null,
  checkpoints: [],
  faults: [],
  images: [],
  application: '',
  simplifications: [],
  demands: [],
  notAsked: [],
  ourWays: [],
  cautions: [],
  versions: [],
  changes: [],
}

export const emptyCount = emptyPosture.counts[0]!
