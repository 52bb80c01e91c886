import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useSearchParams } from 'react-router'
import { answer, api } from '../api/client'
import { useSignedIn } from '../app/session'
import { Heading, Tabs } from '../ui/states'
import { ConventionsView } from './ConventionsView'
import { TeachingView } from './TeachingView'
import { TermsView } from './TermsView'

const views = [
  { value: 'ways', name: 'Our ways', View: ConventionsView },
  { value: 'teaching', name: 'How we teach', View: TeachingView },
  { value: 'terms', name: 'Terms', View: TermsView },
]

const rules: [string, string][] = [
  ['Reviews after an introduction', '1, 2, 4 and 8 weeks; a week either way is free'],
  ['Warm-up and settling', '10 and 5 minutes of every lesson'],
  ['Own practice after something new', 'at least 4 minutes'],
  ['Pace of a count', 'smooth 4 s, cues only 6, explained 12, faults shown 16'],
  ['Settled', 'alone or flowing on 3 days over at least 3 weeks, no key point open'],
  ['Fading', 'untouched for 6 weeks, 12 when settled'],
  ['Stuck correction', 'open for 6 weeks, or seen 4 times'],
  ['Teach again', 'the same fault in at least 3 people and 40 % of those watched'],
]

/** The school, the terms, the rules in force, and signing out. */
export function SchoolScreen() {
  const { schoolName, person } = useSignedIn()
  const queries = useQueryClient()
  const [search, setSearch] = useSearchParams()
  const view = views.find((one) => one.value === search.get('view')) ?? views[0]!
  const signOut = useMutation({
    mutationFn: () => answer(api.POST('/api/session/sign-out')),
    onSuccess: async () => {
      queries.removeQueries({ predicate: (query) => query.queryKey[0] !== 'session' })
      await queries.invalidateQueries({ queryKey: ['session'] })
    },
  })
  return (
    <>
      <Heading
        title={schoolName}
        facts={`Signed in as ${person.name}, ${person.role === 'head' ? 'head of school' : person.role}`}
      >
        <button type="button" className="button" onClick={() => signOut.mutate()}>
          Sign out
        </button>
      </Heading>
      <div className="grid gap-8 px-5 pb-10 lg:grid-cols-[2fr_1fr]">
        <section>
          <Tabs
            label="Settings"
            value={view.value}
            options={views}
            onChange={(which) => setSearch(which === views[0]!.value ? {} : { view: which }, { replace: true })}
          />
          <div className="mt-4">
            <view.View />
          </div>
          <h2 className="mt-8 text-lg">What Zeitplan reckons with</h2>
          <dl className="mt-2 border-t border-line bg-paper">
            {rules.map(([name, value]) => (
              <div key={name} className="grid grid-cols-[240px_1fr] gap-4 border-b border-fine px-3 py-2">
                <dt className="font-semibold">{name}</dt>
                <dd>{value}</dd>
              </div>
            ))}
          </dl>
        </section>
        <section>
          <h2 className="text-lg">Safety</h2>
          <p className="mt-2">
            Zeitplan plans lessons; it is not medical advice. A student’s own clinician, licensed practice and your
            local codes on halls, first aid, safeguarding and accessibility come first.
          </p>
        </section>
      </div>
    </>
  )
}
