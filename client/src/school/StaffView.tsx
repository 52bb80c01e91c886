import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { leave } from '../shared/leaving'
import { useOpened } from '../shared/opened'
import { Opening } from '../shared/Opening'
import { peopleQuery } from '../shared/people'
import { Checkbox } from '../ui/Checkbox'
import { Refusal } from '../ui/states'
import { moment, roleWords } from '../ui/words'
import { lettersQuery, saveSecondFactorRule, staffQuery, type Member } from './data'
import { StaffPanel } from './StaffPanel'

/** Those who teach, how far their sign-ins have come, and the letters that lead there. For the head. */
export function StaffView() {
  const staff = useQuery(staffQuery())
  const people = useQuery(peopleQuery())
  const { opened, open, close } = useOpened<string>()
  if (!staff.data || !people.data) return <Opening of={[staff, people]} what="Opening the staff" />
  const { members, mail } = staff.data
  const choose = (id: string) => leave(() => open(id))
  const leads = (member: Member) =>
    people.data.classes
      .filter(({ staffIds }) => staffIds.includes(member.id))
      .map(({ name }) => name)
      .join('; ')
  const chosen = members.find(({ id }) => id === opened)
  return (
    <div className={`grid gap-6 ${opened ? 'xl:grid-cols-[minmax(0,1fr)_400px]' : ''}`}>
      <div className="grid content-start gap-6">
        <section>
          <ul className="border-t border-line bg-paper">
            {members.map((member) => (
              <li key={member.id} className="border-b border-fine px-3 py-2">
                <button type="button" className="quiet-link font-serif text-base" onClick={() => choose(member.id)}>
                  {member.name}
                </button>{' '}
                <State member={member} leads={leads(member)} />
                <br />
                <span className="text-soft">
                  {[
                    roleWords[member.role],
                    leads(member) || 'no class',
                    member.lastUsed ? `last here ${moment(member.lastUsed)}` : 'signed in nowhere',
                    member.secondFactor && 'second factor',
                    member.studentId && 'learns here, too',
                  ]
                    .filter(Boolean)
                    .join(' · ')}
                </span>
              </li>
            ))}
          </ul>
          <button type="button" className="button mt-3" onClick={() => choose('new')}>
            Invite somebody who teaches
          </button>
        </section>
        <Rule secondFactorForHeads={staff.data.secondFactorForHeads} version={staff.data.schoolVersion} />
        <Postbox mail={mail} />
      </div>
      {opened && (chosen || opened === 'new') && (
        <StaffPanel key={opened} member={chosen ?? null} mail={mail} close={close} />
      )}
    </div>
  )
}

function State({ member, leads }: { member: Member; leads: string }) {
  switch (member.state) {
    case 'invited':
      return <span className="font-semibold text-ochre">· invited</span>
    case 'locked':
      return <span className="font-semibold text-lacquer">· locked</span>
    case 'closed':
      return (
        <span className="font-semibold text-lacquer">· closed{leads && ', and still leads a class: give it away'}</span>
      )
    case 'open':
      return null
  }
}

function Rule({ secondFactorForHeads, version }: { secondFactorForHeads: boolean; version: number }) {
  const save = useMutation(saveSecondFactorRule)
  return (
    <section>
      <Checkbox
        checked={secondFactorForHeads}
        onChange={(asked) => save.mutate({ secondFactorForHeads: asked, version })}
        hint="A head without codes or a passkey is signed out, and sets one up before anything else. Yours has to be there first."
      >
        Every head signs in with a second factor
      </Checkbox>
      {save.error && <Refusal error={save.error} />}
    </section>
  )
}

/** The letters of the school. Without mail they are printed or sent on from here; each holds a way in. */
function Postbox({ mail }: { mail: boolean }) {
  const letters = useQuery(lettersQuery())
  const [open, setOpen] = useState<string>()
  if (!letters.data) return <Opening of={[letters]} what="Opening the postbox" />
  return (
    <section>
      <h2 className="text-lg">Postbox</h2>
      <p className="text-soft">
        {mail
          ? 'Letters go out by mail; what could not be delivered stays here with its reason.'
          : 'This installation has no mail: letters wait here to be printed or sent on. Whoever holds one can choose the password it is for, so it goes to its reader and nobody else.'}
      </p>
      <ul className="mt-2 border-t border-line bg-paper">
        {letters.data.map((letter) => (
          <li key={letter.id} className="border-b border-fine px-3 py-2">
            <span className="flex flex-wrap justify-between gap-3">
              <span>
                <b>{letter.subject}</b> · to {letter.name}, {letter.to}
              </span>
              {letter.text && (
                <button
                  type="button"
                  className="quiet-link"
                  aria-expanded={open === letter.id}
                  aria-label={`Read the letter to ${letter.name}`}
                  onClick={() => setOpen((now) => (now === letter.id ? undefined : letter.id))}
                >
                  {open === letter.id ? 'Put it back' : 'Read it'}
                </button>
              )}
            </span>
            <span className="text-soft">
              written {moment(letter.written)}
              {letter.sent ? ` · sent ${moment(letter.sent)}` : ` · opens until ${moment(letter.until)}`}
            </span>
            {letter.failure && <p className="text-lacquer">The mail server would not take it: {letter.failure}</p>}
            {open === letter.id && letter.text && (
              <pre className="letter mt-2 max-w-prose overflow-x-auto rounded-md border border-line bg-white p-4 font-sans whitespace-pre-wrap [overflow-wrap:anywhere]">
                {letter.text}
              </pre>
            )}
          </li>
        ))}
        {letters.data.length === 0 && <li className="border-b border-fine px-3 py-2 text-soft">No letter.</li>}
      </ul>
    </section>
  )
}
