import { useMutation, useQuery } from '@tanstack/react-query'
import { useDraft } from '../shared/draft'
import { DraftProblem, SaveBar, TextField } from '../shared/fields'
import { Opening } from '../shared/Opening'
import { Refusal } from '../ui/states'
import { moment } from '../ui/words'
import { accountQuery, changePassword, endOtherSignIns, endSignIn, type OwnAccount } from './data'
import { SecondFactor } from './SecondFactor'
import { deviceOf } from './device'

/** A person's own sign-in: the password, and every device on which it is open. */
export function AccountView() {
  const account = useQuery(accountQuery())
  if (!account.data) return <Opening of={[account]} what="Opening your sign-in" />
  return (
    <div className="grid max-w-3xl gap-8">
      <PasswordForm account={account.data} />
      <SecondFactor />
      <OpenSignIns signIns={account.data.signIns} />
      {account.data.studentId && (
        <section>
          <h2 className="text-lg">You learn here, too</h2>
          <a className="quiet-link" href={`/api/students/${account.data.studentId}/everything`} download>
            Everything the school keeps about you
          </a>
        </section>
      )}
    </div>
  )
}

const empty = { current: '', wanted: '', again: '' }

function PasswordForm({ account }: { account: OwnAccount }) {
  const draft = useDraft({
    about: ['password'],
    what: 'your new password',
    text: empty,
    version: null,
    survivesReload: false,
  })
  const save = useMutation(changePassword)
  const differ = draft.text.again !== '' && draft.text.again !== draft.text.wanted
  return (
    <form
      className="grid gap-4"
      noValidate
      onSubmit={(event) => {
        event.preventDefault()
        if (differ || draft.text.again === '') return
        draft.submit(
          ({ current, wanted }) => save.mutateAsync({ current, wanted }),
          () => draft.forget(),
        )(event)
      }}
    >
      <div>
        <h2 className="text-lg">Your password</h2>
        <p className="text-soft">
          You sign in as {account.email}.{' '}
          {account.ownPassword
            ? 'Whoever learned your password is out as soon as you change it: every sign-in elsewhere ends.'
            : 'Your password was given to you; choose one that only you know. Every sign-in elsewhere ends.'}
        </p>
      </div>
      <TextField
        draft={draft}
        name="current"
        label="The password you have now"
        type="password"
        autoComplete="current-password"
      />
      <div className="grid gap-4 sm:grid-cols-2">
        <TextField
          draft={draft}
          name="wanted"
          label="The new one, 12 characters or more"
          type="password"
          autoComplete="new-password"
        />
        <div>
          <TextField draft={draft} name="again" label="The new one again" type="password" autoComplete="new-password" />
          {differ && (
            <p role="status" className="mt-1 text-lacquer">
              The two are not the same yet.
            </p>
          )}
        </div>
      </div>
      <DraftProblem draft={draft} shown={(field) => field === 'current' || field === 'wanted'} />
      <SaveBar draft={draft} save="Change the password" />
      {save.isSuccess && !draft.dirty && (
        <p role="status" className="text-pine">
          Your password was changed.
        </p>
      )}
    </form>
  )
}

function OpenSignIns({ signIns }: { signIns: OwnAccount['signIns'] }) {
  const end = useMutation(endSignIn)
  const endOthers = useMutation(endOtherSignIns)
  const error = end.error ?? endOthers.error
  return (
    <section>
      <h2 className="text-lg">Where you are signed in</h2>
      {error && <Refusal error={error} />}
      <ul className="mt-2 border-t border-line bg-paper">
        {signIns.map((signIn) => (
          <li
            key={signIn.id}
            className="flex flex-wrap items-center justify-between gap-3 border-b border-fine px-3 py-2"
          >
            <span>
              <b>{deviceOf(signIn.device)}</b>
              {signIn.isThis && ' · the one you are using'}
              <br />
              <span className="text-soft">
                since {moment(signIn.began)} · last used {moment(signIn.lastUsed)}
              </span>
            </span>
            {!signIn.isThis && (
              <button
                type="button"
                className="quiet-link"
                disabled={end.isPending}
                aria-label={`Sign out ${deviceOf(signIn.device)}, since ${moment(signIn.began)}`}
                onClick={() => end.mutate({ id: signIn.id })}
              >
                Sign it out
              </button>
            )}
          </li>
        ))}
      </ul>
      {signIns.length > 1 && (
        <button type="button" className="button mt-3" disabled={endOthers.isPending} onClick={() => endOthers.mutate()}>
          Sign out everywhere else
        </button>
      )}
    </section>
  )
}
