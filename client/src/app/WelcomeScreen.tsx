import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useLocation, useNavigate } from 'react-router'
import { Problem } from '../api/problem'
import { letterQuery, welcome } from '../shared/session'
import { Field } from '../ui/Field'
import { Door, DoorError } from './Door'
import { SecondStep } from './SecondStep'

/** Where a letter leads: a password of one's own is chosen, and one is in. */
export function WelcomeScreen({ school }: { school: string }) {
  const { hash } = useLocation()
  const navigate = useNavigate()
  const [account = '', code = ''] = hash.slice(1).split('.')
  const way = { account: asId(account), code }
  const letter = useQuery(letterQuery(way))
  const [password, setPassword] = useState('')
  const [again, setAgain] = useState('')
  const enter = useMutation(welcome)
  const home = () => void navigate('/', { replace: true })
  if (enter.data?.secondFactor) return <SecondStep school={school} back={home} />
  if (letter.isPending)
    return (
      <Door school={school}>
        <p role="status">Opening your letter…</p>
      </Door>
    )
  if (letter.error)
    return (
      <Door school={school} onSubmit={home}>
        <DoorError error={letter.error} />
        <button type="submit" className="button">
          Go to the sign-in
        </button>
      </Door>
    )
  const { name, email, kind } = letter.data
  const differ = again !== '' && again !== password
  const wrong = enter.error instanceof Problem ? enter.error.at('password') : undefined
  return (
    <Door
      school={school}
      onSubmit={() => {
        if (again === password)
          enter.mutate({ ...way, password }, { onSuccess: (done) => !done.secondFactor && home() })
      }}
    >
      <p>
        {kind === 'invitation' ? `Welcome, ${name}. ` : `${name}, `}
        {kind === 'invitation' ? 'Choose' : 'choose'} a password that only you know. You sign in as {email}.
      </p>
      <input type="hidden" autoComplete="username" value={email} readOnly />
      <Field
        label="Password, 12 characters or more"
        type="password"
        autoComplete="new-password"
        value={password}
        onChange={setPassword}
        error={wrong}
      />
      <Field
        label="The same again"
        type="password"
        autoComplete="new-password"
        value={again}
        onChange={setAgain}
        error={differ ? 'The two are not the same yet.' : undefined}
      />
      {!wrong && <DoorError error={enter.error} />}
      <button type="submit" className="button button-primary" disabled={enter.isPending || password === '' || differ}>
        Come in
      </button>
    </Door>
  )
}

/** Identifiers travel without dashes. */
const asId = (plain: string) => plain.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5')
