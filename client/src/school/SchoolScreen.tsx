import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Link } from 'react-router'
import { forgetDrafts } from '../shared/draft'
import { leave } from '../shared/leaving'
import { useSearch } from '../shared/search'
import { signOut, useSignedIn } from '../shared/session'
import { rulesQuery } from '../shared/ways'
import { Heading } from '../ui/states'
import { TabList, TabPanel, Tabs } from '../ui/Tabs'
import { AccountView } from './AccountView'
import { ConventionsView } from './ConventionsView'
import { NameForm } from './NameForm'
import { DemoBeside } from './DemoBeside'
import { JournalView } from './JournalView'
import { SafeView } from './SafeView'
import { StaffView } from './StaffView'
import { TeachingView } from './TeachingView'
import { TermsView } from './TermsView'

const views = [
  { value: 'school', name: 'The school' },
  { value: 'ways', name: 'Our ways' },
  { value: 'teaching', name: 'How we teach' },
  { value: 'terms', name: 'Terms' },
  { value: 'account', name: 'Your sign-in' },
  { value: 'staff', name: 'Who teaches' },
  { value: 'journal', name: 'Journal' },
  { value: 'safe', name: 'Kept safe' },
] as const

/** Where what the school reckons with is of no use beside. */
const aboutSignIns: readonly string[] = ['account', 'staff', 'journal', 'safe']

/** What only the head sees. */
const forHeads: readonly string[] = ['staff', 'journal', 'safe']

/** The school, the terms, the rules in force, and signing out. */
export function SchoolScreen() {
  const { schoolName, person, isHead, isDemo, mayBegin } = useSignedIn()
  const queries = useQueryClient()
  const [search, set] = useSearch()
  const open = views.filter(({ value }) => isHead || !forHeads.includes(value))
  const view = open.find((one) => one.value === search.get('view'))?.value ?? 'ways'
  const isAboutWays = !aboutSignIns.includes(view)
  const rules = useQuery(rulesQuery()).data?.rules ?? []
  const out = useMutation(signOut)
  const go = () =>
    out.mutate(undefined, {
      onSuccess: () => {
        forgetDrafts()
        queries.removeQueries({ predicate: (query) => query.queryKey[0] !== 'session' })
      },
    })
  return (
    <Tabs value={view} onChange={(which) => leave(() => set({ view: which === 'ways' ? null : which }))}>
      <Heading
        title={schoolName || 'Our school'}
        facts={`Signed in as ${person.name}, ${person.role === 'head' ? 'head of school' : person.role}`}
      >
        {isHead && !isDemo && (
          <Link to="/moving-in" className="quiet-link">
            Moving in
          </Link>
        )}
        {mayBegin && (
          <Link to="/begin" className="button button-primary">
            Begin our own school
          </Link>
        )}
        <button type="button" className="button" onClick={() => leave(go)}>
          Sign out
        </button>
      </Heading>
      <div className={`grid gap-8 px-5 pb-10 ${isAboutWays ? 'lg:grid-cols-[minmax(0,2fr)_minmax(0,1fr)]' : ''}`}>
        <section className="min-w-0">
          <TabList label="Settings" options={open} />
          <TabPanel value="ways" className="mt-4">
            <ConventionsView />
          </TabPanel>
          <TabPanel value="school" className="mt-4">
            <NameForm />
            <DemoBeside />
          </TabPanel>
          <TabPanel value="account" className="mt-4">
            <AccountView />
          </TabPanel>
          <TabPanel value="staff" className="mt-4">
            <StaffView />
          </TabPanel>
          <TabPanel value="journal" className="mt-4">
            <JournalView />
          </TabPanel>
          <TabPanel value="safe" className="mt-4">
            <SafeView />
          </TabPanel>
          <TabPanel value="teaching" className="mt-4">
            <TeachingView />
          </TabPanel>
          <TabPanel value="terms" className="mt-4">
            <TermsView />
          </TabPanel>
        </section>
        <section className="grid content-start gap-6" hidden={!isAboutWays}>
          <div>
            <h2 className="text-lg">Safety</h2>
            <p className="mt-2">
              Zeitplan plans lessons; it is not medical advice. A student’s own clinician, licensed practice and your
              local codes on halls, first aid, safeguarding and accessibility come first.
            </p>
          </div>
          <div>
            <h2 className="text-lg">What Zeitplan reckons with</h2>
            <dl className="mt-2 border-t border-line bg-paper">
              {rules.map(({ name, value }) => (
                <div key={name} className="border-b border-fine px-3 py-2">
                  <dt className="font-semibold">{name}</dt>
                  <dd>{value}</dd>
                </div>
              ))}
            </dl>
          </div>
        </section>
      </div>
    </Tabs>
  )
}
