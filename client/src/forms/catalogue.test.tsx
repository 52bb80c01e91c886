import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { Route, Routes } from 'react-router'
import type { Schema } from '../api/client'
import { keepsEveryEdit } from '../testing/edited-form'
import { postureItem, press, pressText } from '../testing/heron-quay'
import { PostureScreen } from './PostureScreen'
import { PrinciplesScreen } from './PrinciplesScreen'

const user = userEvent.setup({ pointerEventsCheck: 0, delay: null })

const principle: Schema['LinkPrincipleItem'] = {
  id: 'trunk',
  text: { order: 1, name: 'Trunk upright', keyPoint: 'the crown is lifted', faults: [], images: [] },
  version: 111,
}
const link: Schema['LinkLinkItem'] = {
  id: 'press-push',
  text: {
    fromId: 'press',
    fromSide: 'right',
    toId: 'push',
    toSide: 'right',
    keyPoint: 'sit back first',
    cues: [],
    faults: [],
  },
  version: 121,
}
const written = {
  'GET /api/principles': { body: [principle] },
  'GET /api/links': { body: [link] },
  'GET /api/postures': { body: [postureItem('press', 'Press'), postureItem('push', 'Push')] },
}
const edit = async (what: string) => {
  const item = (await screen.findByText(what)).closest('li')!
  await user.click(within(item).getByRole('button', { name: 'Edit' }))
}

keepsEveryEdit({
  name: 'a principle',
  at: '/forms/principles',
  screen: <PrinciplesScreen />,
  answers: written,
  open: () => edit('Trunk upright'),
  field: 'What is required',
  before: 'the crown is lifted',
  theirs: {
    answers: {
      'GET /api/principles': {
        body: [{ ...principle, text: { ...principle.text, keyPoint: 'theirs' }, version: 112 }],
      },
    },
    says: 'theirs',
  },
  save: 'Save the principle',
  sent: 'PUT /api/principles/trunk',
  version: 111,
  path: 'keyPoint',
})

keepsEveryEdit({
  name: 'a link',
  at: '/forms/principles',
  screen: <PrinciplesScreen />,
  answers: written,
  open: () => edit('sit back first'),
  field: 'Key point',
  before: 'sit back first',
  theirs: {
    answers: { 'GET /api/links': { body: [{ ...link, text: { ...link.text, keyPoint: 'theirs' }, version: 122 }] } },
    says: 'theirs',
  },
  save: 'Save the link',
  sent: 'PUT /api/links/press-push',
  version: 121,
  path: 'keyPoint',
})

keepsEveryEdit({
  name: 'a posture',
  at: '/forms/postures/press?edit=1',
  screen: (
    <Routes>
      <Route path="/forms/postures/:postureId" element={<PostureScreen />} />
      <Route path="*" element={null} />
    </Routes>
  ),
  answers: { ...written, 'GET /api/postures/press': { body: press } },
  open: async () => user.click(await screen.findByRole('tab', { name: 'About it' })),
  field: 'Key point: the one thing kept when everything else gives way',
  before: pressText.keyPoint,
  theirs: {
    answers: {
      'GET /api/postures/press': { body: { ...press, text: { ...pressText, keyPoint: 'theirs' }, version: 102 } },
    },
    says: 'theirs',
  },
  save: 'Save the posture',
  sent: 'PUT /api/postures/press',
  version: 101,
  path: 'keyPoint',
})
