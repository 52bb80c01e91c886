import type { Schema } from '../api/client'
import { counted } from '../ui/words'

/** "watched in 3 of 5 lessons in six weeks". */
export const eyesWords = ({ seen, here }: Schema['ProgressEyes']) =>
  here === 0 ? 'not here in six weeks' : `watched in ${seen} of ${counted(here, 'lesson')} in six weeks`
