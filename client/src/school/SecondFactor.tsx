import { useMutation, useQuery } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { Problem } from '../api/problem'
import { hasPasskeys } from '../shared/passkeys'
import { Opening } from '../shared/Opening'
import { Field } from '../ui/Field'
import { QrCode } from '../ui/QrCode'
import { Refusal } from '../ui/states'
import { moment } from '../ui/words'
import {
  addPasskey,
  beginAuthenticator,
  confirmAuthenticator,
  removePasskey,
  renewRecoveryCodes,
  secondFactorQuery,
  turnOffAuthenticator,
} from './data'

/** What somebody signs in with beside or instead of their password. */
export function SecondFactor() {
  const factor = useQuery(secondFactorQuery())
  const [codes, setCodes] = useState<string[]>()
  if (!factor.data) return <Opening of={[factor]} what="Opening your second factor" />
  return (
    <section className="grid gap-6">
      <div>
        <h2 className="text-lg">A second factor</h2>
        <p className="text-soft">
          Whoever learns your password still does not get in. An app on your telephone shows six digits that change
          every half minute; a passkey lets this device say it is you.
        </p>
      </div>
      {codes && <RecoveryCodes codes={codes} done={() => setCodes(undefined)} />}
      <Authenticator on={factor.data.authenticator} left={factor.data.recoveryCodes} given={setCodes} />
      <Passkeys passkeys={factor.data.passkeys} />
    </section>
  )
}

/** Something about one's own sign-in that asks for the password once more. */
function WithPassword({
  act,
  busy,
  error,
  onAct,
  onLeave,
  children,
}: {
  act: string
  busy: boolean
  error: Error | null
  onAct: (password: string) => void
  onLeave: () => void
  children?: ReactNode
}) {
  const [password, setPassword] = useState('')
  const wrong = error instanceof Problem ? error.at('password') : undefined
  return (
    <form
      className="grid max-w-sm gap-3"
      noValidate
      onSubmit={(event) => {
        event.preventDefault()
        onAct(password)
      }}
    >
      {children}
      <Field
        label="Your password, once more"
        type="password"
        autoComplete="current-password"
        value={password}
        onChange={setPassword}
        error={wrong}
      />
      {error && !wrong && <Refusal error={error} shown={['name']} />}
      <div className="flex flex-wrap gap-3">
        <button type="submit" className="button button-primary" disabled={busy || password === ''}>
          {act}
        </button>
        <button type="button" className="button" onClick={onLeave}>
          Cancel
        </button>
      </div>
    </form>
  )
}

function Authenticator({ on, left, given }: { on: boolean; left: number; given: (codes: string[]) => void }) {
  const [doing, setDoing] = useState<'begin' | 'off' | 'renew'>()
  const begin = useMutation(beginAuthenticator)
  const off = useMutation(turnOffAuthenticator)
  const renew = useMutation(renewRecoveryCodes)
  const leave = () => {
    setDoing(undefined)
    for (const each of [begin, off, renew]) each.reset()
  }
  return (
    <div className="grid gap-3">
      <h3 className="text-base">Codes from an app</h3>
      <p>
        {on
          ? `Asked for at every sign-in. ${left} recovery ${left === 1 ? 'code is' : 'codes are'} left.`
          : 'Not asked for.'}
        {on && left < 3 && <b className="text-ochre"> Make new ones before they run out.</b>}
      </p>
      {doing === 'begin' && begin.data && !on ? (
        <Scan setup={begin.data} done={(codes) => (given(codes), leave())} leave={leave} />
      ) : doing === 'begin' ? (
        <WithPassword
          act="Go on"
          busy={begin.isPending}
          error={begin.error}
          onAct={(password) => begin.mutate({ password })}
          onLeave={leave}
        />
      ) : doing === 'off' ? (
        <WithPassword
          act="Turn the codes off"
          busy={off.isPending}
          error={off.error}
          onAct={(password) => off.mutate({ password }, { onSuccess: leave })}
          onLeave={leave}
        />
      ) : doing === 'renew' ? (
        <WithPassword
          act="Make new recovery codes"
          busy={renew.isPending}
          error={renew.error}
          onAct={(password) =>
            renew.mutate({ password }, { onSuccess: ({ recoveryCodes }) => (given(recoveryCodes), leave()) })
          }
          onLeave={leave}
        >
          <p>The old ones no longer open anything.</p>
        </WithPassword>
      ) : (
        <p className="flex flex-wrap gap-5">
          {!on && (
            <button type="button" className="button" onClick={() => setDoing('begin')}>
              Set up codes
            </button>
          )}
          {on && (
            <>
              <button type="button" className="quiet-link" onClick={() => setDoing('renew')}>
                New recovery codes
              </button>
              <button type="button" className="quiet-link" onClick={() => setDoing('off')}>
                Turn the codes off
              </button>
            </>
          )}
        </p>
      )}
    </div>
  )
}

function Scan({
  setup,
  done,
  leave,
}: {
  setup: { key: string; address: string; picture: string[] }
  done: (codes: string[]) => void
  leave: () => void
}) {
  const [code, setCode] = useState('')
  const confirm = useMutation(confirmAuthenticator)
  return (
    <form
      className="grid gap-4 sm:grid-cols-[auto_minmax(0,1fr)]"
      noValidate
      onSubmit={(event) => {
        event.preventDefault()
        confirm.mutate({ code }, { onSuccess: ({ recoveryCodes }) => done(recoveryCodes) })
      }}
    >
      <QrCode rows={setup.picture} label="Scan this with the app" />
      <div className="grid content-start gap-3">
        <p>
          Scan the picture with an authenticator app, or{' '}
          <a className="quiet-link" href={setup.address}>
            open it on this device
          </a>
          , or type this into the app:
          <br />
          <code className="font-mono select-all">{setup.key}</code>
        </p>
        <Field
          label="The six digits it shows now"
          autoComplete="one-time-code"
          value={code}
          onChange={setCode}
          error={confirm.error instanceof Problem ? confirm.error.at('code') : undefined}
        />
        {confirm.error && <Refusal error={confirm.error} shown={['code']} />}
        <div className="flex flex-wrap gap-3">
          <button type="submit" className="button button-primary" disabled={confirm.isPending || code.trim() === ''}>
            Turn the codes on
          </button>
          <button type="button" className="button" onClick={leave}>
            Cancel
          </button>
        </div>
      </div>
    </form>
  )
}

/** Shown once and never again. */
function RecoveryCodes({ codes, done }: { codes: string[]; done: () => void }) {
  return (
    <div role="status" className="grid gap-2 border-l-4 border-pine pl-4">
      <p className="font-semibold">Ten recovery codes, for a day without the telephone. Each lets you in once.</p>
      <p>Print them or write them down now: they are not shown again.</p>
      <ul aria-label="Recovery codes" className="grid max-w-sm grid-cols-2 gap-x-6 font-mono select-all">
        {codes.map((code) => (
          <li key={code}>{code}</li>
        ))}
      </ul>
      <p className="flex flex-wrap gap-3">
        <button type="button" className="button" onClick={() => window.print()}>
          Print
        </button>
        <button type="button" className="button" onClick={done}>
          I have them
        </button>
      </p>
    </div>
  )
}

function Passkeys({ passkeys }: { passkeys: { id: string; name: string; created: string }[] }) {
  const [doing, setDoing] = useState<'add' | { id: string; name: string }>()
  const [name, setName] = useState('')
  const add = useMutation(addPasskey)
  const remove = useMutation(removePasskey)
  const leave = () => {
    setDoing(undefined)
    add.reset()
    remove.reset()
  }
  return (
    <div className="grid gap-3">
      <h3 className="text-base">Passkeys</h3>
      {passkeys.length > 0 && (
        <ul className="border-t border-line bg-paper">
          {passkeys.map((passkey) => (
            <li key={passkey.id} className="flex flex-wrap justify-between gap-3 border-b border-fine px-3 py-2">
              <span>
                <b>{passkey.name}</b> <span className="text-soft">since {moment(passkey.created)}</span>
              </span>
              <button
                type="button"
                className="quiet-link"
                aria-label={`Take the passkey ${passkey.name} off`}
                onClick={() => setDoing(passkey)}
              >
                Take it off
              </button>
            </li>
          ))}
        </ul>
      )}
      {doing === 'add' ? (
        <WithPassword
          act="Make the passkey"
          busy={add.isPending}
          error={add.error}
          onAct={(password) => add.mutate({ password, name }, { onSuccess: leave })}
          onLeave={leave}
        >
          <Field
            label="What you call this device"
            value={name}
            onChange={setName}
            maxLength={40}
            error={add.error instanceof Problem ? add.error.at('name') : undefined}
          />
        </WithPassword>
      ) : doing ? (
        <WithPassword
          act={`Take ${doing.name} off`}
          busy={remove.isPending}
          error={remove.error}
          onAct={(password) => remove.mutate({ id: doing.id, password }, { onSuccess: leave })}
          onLeave={leave}
        />
      ) : hasPasskeys() ? (
        <button type="button" className="button justify-self-start" onClick={() => setDoing('add')}>
          Add a passkey on this device
        </button>
      ) : (
        <p className="text-soft">
          {passkeys.length === 0 && 'None. '}This browser can make one only where Zeitplan is reached by a name, not by
          a number such as {window.location.hostname}.
        </p>
      )}
    </div>
  )
}
