import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { useDraft } from '../shared/draft'
import { DraftProblem, SaveBar, TextField } from '../shared/fields'
import { beginOwnSchool } from '../shared/session'
import { Heading } from '../ui/states'

const fresh = { name: '', email: '', password: '' }

const shown = (field: string) => field in fresh

/** Out of the demo into a school of one's own: whoever begins it is its head. */
export function BeginScreen() {
  const navigate = useNavigate()
  const queries = useQueryClient()
  const begin = useMutation(beginOwnSchool)
  const draft = useDraft({
    about: ['own school'],
    what: 'your own school',
    text: fresh,
    version: null,
    survivesReload: false,
  })
  return (
    <>
      <Heading title="Begin our own school" facts="Beside the demo, in a database of its own" />
      <form
        className="grid max-w-xl gap-4 px-5 pb-10"
        noValidate
        onSubmit={draft.submit(
          (text) => begin.mutateAsync(text),
          () => {
            // What was read in the demo is of another school.
            queries.removeQueries({
              predicate: ({ queryKey }) => queryKey[0] !== 'session' && queryKey[0] !== 'engine',
            })
            void navigate('/moving-in')
          },
        )}
      >
        <p>
          Your school begins empty and is found at this address from now on; a path of eleven steps leads to its first
          planned term. The demo stays beside it, to look things up in, at an address of its own, until you take it
          away.
        </p>
        <TextField draft={draft} name="name" label="Your name" autoComplete="name" />
        <TextField draft={draft} name="email" label="Email to sign in with" type="email" autoComplete="username" />
        <TextField
          draft={draft}
          name="password"
          label="Password, 12 characters or more"
          type="password"
          autoComplete="new-password"
        />
        <DraftProblem draft={draft} shown={shown} />
        <SaveBar draft={draft} save="Begin" cancel={() => void navigate(-1)} />
      </form>
    </>
  )
}
