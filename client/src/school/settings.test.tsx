import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { keepsEveryEdit } from '../testing/edited-form'
import { teaching, term } from '../testing/heron-quay'
import { SchoolScreen } from './SchoolScreen'

const user = userEvent.setup({ pointerEventsCheck: 0, delay: null })
const press = async (name: string | RegExp) => user.click(await screen.findByRole('button', { name }))

keepsEveryEdit({
  name: 'a term',
  at: '/school?view=terms',
  screen: <SchoolScreen />,
  open: () => press('Autumn 2026'),
  field: 'Name',
  before: 'Autumn 2026',
  theirs: null,
  save: 'Save the term',
  sent: 'PUT /api/terms/autumn',
  version: term.version,
  path: 'name',
})

keepsEveryEdit({
  name: 'a pattern of passes',
  at: '/school?view=teaching',
  screen: <SchoolScreen />,
  // The list shows what is being written already.
  open: () => press(/^(Show and follow|Noor’s)$/),
  field: 'Name',
  before: 'Show and follow',
  theirs: {
    answers: {
      'GET /api/teaching': {
        body: {
          ...teaching,
          teaching: {
            ...teaching.teaching,
            patterns: [{ ...teaching.teaching.patterns[0]!, name: 'Follow and show' }],
          },
          version: 92,
        },
      },
    },
    says: 'Follow and show',
  },
  save: 'Save how we teach',
  sent: 'PUT /api/teaching',
  version: teaching.version,
  path: 'patterns[0].name',
})
