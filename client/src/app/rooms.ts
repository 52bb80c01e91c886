/** The rooms of the application, in working order, with the letter that goes there after g. */
export const rooms = [
  { path: '/', name: 'Today', key: 'd' },
  { path: '/forms', name: 'Forms', key: 'f' },
  { path: '/people', name: 'People', key: 'p' },
  { path: '/term', name: 'Term', key: 't' },
  { path: '/lessons', name: 'Lessons', key: 'l' },
  { path: '/progress', name: 'Progress', key: 'o' },
  { path: '/school', name: 'School', key: 's' },
] as const
