import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { details, evening, limits, school, student, students } from '../testing/heron-quay'
import { keepsEveryEdit } from '../testing/edited-form'
import { PeopleScreen } from './PeopleScreen'

const user = userEvent.setup({ pointerEventsCheck: 0, delay: null })
const press = async (name: string) => user.click(await screen.findByRole('button', { name }))
const people = (part: Partial<typeof school>) => ({ 'GET /api/people': { body: { ...school, ...part } } })
const withDetails = {
  'GET /api/students/imke/details': { body: details },
  'GET /api/students/goran/details': { body: details },
}

keepsEveryEdit({
  name: 'a class',
  at: '/people?view=classes',
  screen: <PeopleScreen />,
  open: () => press('Change Tuesday evening'),
  field: 'Name',
  before: 'Tuesday evening',
  theirs: {
    answers: people({ classes: [{ ...evening, name: 'Tuesday, theirs', version: 32 }] }),
    says: 'Tuesday, theirs',
  },
  save: 'Save the class',
  sent: 'PUT /api/classes/evening',
  version: 31,
  path: 'name',
})

keepsEveryEdit({
  name: 'a new class',
  at: '/people?view=classes',
  screen: <PeopleScreen />,
  open: () => press('Add a class'),
  field: 'Name',
  before: '',
  theirs: null,
  save: 'Add the class',
  sent: 'POST /api/classes',
  version: null,
  path: 'name',
})

keepsEveryEdit({
  name: 'a cohort',
  at: '/people?view=classes',
  screen: <PeopleScreen />,
  open: () => press('Change Fern'),
  field: 'Name',
  before: 'Fern',
  theirs: {
    answers: people({
      classes: [
        { ...evening, cohorts: evening.cohorts.map((one) => ({ ...one, name: `${one.name}, theirs`, version: 99 })) },
      ],
    }),
    says: 'Fern, theirs',
  },
  save: 'Save the cohort',
  sent: 'PUT /api/cohorts/fern-group',
  version: 22,
  path: 'name',
})

keepsEveryEdit({
  name: 'a sash',
  at: '/people?view=ladder',
  screen: <PeopleScreen />,
  answers: { 'POST /api/sashes/fern/effects': { body: [] } },
  open: () => press('Change Fern'),
  field: 'Name',
  before: 'Fern',
  theirs: {
    // A sash that is new on the ladder is no reason to begin again either.
    answers: people({
      sashes: [
        ...school.sashes.map((one) => ({ ...one, name: `${one.name}, theirs`, version: 99 })),
        { ...school.sashes[1]!, id: 'copper', name: 'Copper', order: 3 },
      ],
    }),
    says: 'Fern, theirs',
  },
  save: 'Save the sash',
  sent: 'PUT /api/sashes/fern',
  version: 12,
  path: 'name',
})

keepsEveryEdit({
  name: 'a hall',
  at: '/people?view=halls',
  screen: <PeopleScreen />,
  open: () => press('Change Quay Hall'),
  field: 'Name',
  before: 'Quay Hall',
  theirs: { answers: people({ halls: [{ ...school.halls[0]!, name: 'Pier Hall', version: 42 }] }), says: 'Pier Hall' },
  save: 'Save the hall',
  sent: 'PUT /api/halls/quay',
  version: 41,
  path: 'name',
})

keepsEveryEdit({
  name: 'a student',
  at: '/people?view=roster',
  screen: <PeopleScreen />,
  answers: withDetails,
  open: () => press('Open Imke Rademaker'),
  field: 'Given name',
  before: 'Imke',
  theirs: {
    answers: {
      'GET /api/students': {
        body: students.map((one) => (one.id === 'imke' ? student('imke', { givenName: 'Imke M.', version: 52 }) : one)),
      },
    },
    says: 'Imke M.',
  },
  save: 'Save the student',
  sent: 'PUT /api/students/imke',
  version: 51,
  path: 'givenName',
})

keepsEveryEdit({
  name: 'somebody’s limits',
  at: '/people?view=roster&student=goran',
  screen: <PeopleScreen />,
  answers: { ...withDetails, 'GET /api/students/goran/limits': { body: limits } },
  open: async () => user.click(await screen.findByRole('tab', { name: 'Limits' })),
  field: 'Note',
  before: limits.note,
  theirs: {
    answers: { 'GET /api/students/goran/limits': { body: { ...limits, note: 'theirs', version: 62 } } },
    says: 'theirs',
  },
  save: 'Save the limits',
  sent: 'PUT /api/students/goran/limits',
  version: 61,
  path: 'note',
  survivesReload: false,
})
