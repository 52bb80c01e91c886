import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useDraft } from '../shared/draft'
import { ChoiceField, DraftProblem, SaveBar, TextField } from '../shared/fields'
import { leave } from '../shared/leaving'
import { studentsQuery } from '../shared/people'
import { AlertDialog } from '../ui/AlertDialog'
import { Panel } from '../ui/Panel'
import { Option } from '../ui/Select'
import { Refusal } from '../ui/states'
import { roleWords } from '../ui/words'
import { actOnSignIn, saveStaff, type Member, type StaffText } from './data'

const fresh: StaffText = { name: '', role: 'assistant', studentId: null, email: '' }

const shown = (field: string) => ['name', 'email', 'studentId'].includes(field)

/** Somebody who teaches: who they are and what they may do, and everything that can become of their sign-in. */
export function StaffPanel({ member, mail, close }: { member: Member | null; mail: boolean; close: () => void }) {
  const students = useQuery(studentsQuery())
  const draft = useDraft<StaffText>({
    about: ['staff', member?.id ?? 'new'],
    what: member ? `what you changed about ${member.name}` : 'the new invitation',
    text: member ? textOf(member) : fresh,
    version: member?.version ?? null,
  })
  const save = useMutation(saveStaff)
  return (
    <Panel
      title={member ? member.name : 'Somebody who teaches'}
      facts={member && roleWords[member.role]}
      close={() => leave(close)}
      forWriting
    >
      <form
        className="grid gap-4"
        noValidate
        onSubmit={draft.submit(
          (text, version) => save.mutateAsync({ id: member?.id ?? draft.made, text, version }),
          member ? undefined : close,
        )}
      >
        <TextField draft={draft} name="name" label="Name" />
        <ChoiceField draft={draft} name="role" label="Role">
          <Option value="assistant">assistant: sees mode and caution, no limits</Option>
          <Option value="instructor">instructor: teaches and marks</Option>
          <Option value="head">head of school: everything</Option>
        </ChoiceField>
        <TextField draft={draft} name="email" label="Email to sign in with" type="email" autoComplete="off" />
        <ChoiceField draft={draft} name="studentId" label="Learns here, too, as" nothing placeholder="nobody">
          <Option value="">nobody: teaches only</Option>
          {students.data
            ?.toSorted((a, b) => a.name.localeCompare(b.name))
            .map((student) => (
              <Option key={student.id} value={student.id}>
                {student.name}
              </Option>
            ))}
        </ChoiceField>
        {!member && (
          <p className="text-soft">
            {mail
              ? 'They get a letter by mail with an address that opens once and is good for a week. There they choose a password that only they know.'
              : 'A letter comes into the postbox below, with an address that opens once and is good for a week: print it or send it on. There they choose a password that only they know.'}
          </p>
        )}
        {member && draft.text.role !== member.role && (
          <p className="text-ochre">{member.name} is signed out everywhere and signs in again with the new role.</p>
        )}
        <DraftProblem draft={draft} shown={shown} />
        <SaveBar draft={draft} save={member ? 'Save' : 'Invite'} cancel={() => leave(close)} />
      </form>
      {member && <TheirSignIn member={member} mail={mail} />}
    </Panel>
  )
}

const textOf = ({ name, role, studentId, email }: Member): StaffText => ({ name, role, studentId, email })

type Act = 'write' | 'lock' | 'unlock' | 'close' | 'reopen' | 'signOut' | 'dropSecondFactor'

/** Asked before it is done: what follows from it, in the words of whoever does it. */
const asks: Partial<Record<Act, { title: (name: string) => string; follows: string; act: string }>> = {
  lock: {
    title: (name) => `Lock ${name} out?`,
    follows: 'Every sign-in ends at once, on every device. Nothing opens it until a head unlocks it.',
    act: 'Lock',
  },
  close: {
    title: (name) => `Close the sign-in of ${name}?`,
    follows:
      'Every sign-in ends at once, on every device, and letters on their way no longer open anything. What they taught and saw keeps their name. Classes they lead have to be given to somebody else.',
    act: 'Close it',
  },
  dropSecondFactor: {
    title: (name) => `Take the second factor off ${name}?`,
    follows:
      'For a lost telephone. Codes and passkeys are gone, every sign-in ends, and the password alone opens the next one.',
    act: 'Take it off',
  },
}

function TheirSignIn({ member, mail }: { member: Member; mail: boolean }) {
  const act = useMutation(actOnSignIn)
  const [asking, setAsking] = useState<Act>()
  const [done, setDone] = useState<string>()
  const ask = asking && asks[asking]
  const go = (what: Act, said: string) => {
    setAsking(undefined)
    act.mutate({ id: member.id, act: what }, { onSuccess: () => setDone(said) })
  }
  const { state } = member
  const shut = state === 'locked' || state === 'closed'
  return (
    <section className="grid gap-2 border-t border-line pt-4">
      <h3>Their sign-in</h3>
      <p>{stateWords(member)}</p>
      {act.error && <Refusal error={act.error} />}
      <p role="status" className={done ? 'text-pine' : 'sr-only'}>
        {!act.isPending && !act.error && done}
      </p>
      <p className="flex flex-wrap gap-x-5 gap-y-2">
        {!shut && (
          <Quiet
            onClick={() => go('write', mail ? 'The letter is on its way.' : 'The letter is in the postbox.')}
            busy={act.isPending}
          >
            {state === 'invited' ? 'Invite again' : 'Letter for a new password'}
          </Quiet>
        )}
        {member.signIns > 0 && (
          <Quiet onClick={() => go('signOut', 'Signed out everywhere.')} busy={act.isPending}>
            Sign out everywhere
          </Quiet>
        )}
        {member.secondFactor && <Quiet onClick={() => setAsking('dropSecondFactor')}>Take the second factor off</Quiet>}
        {state === 'locked' ? (
          <Quiet onClick={() => go('unlock', 'Unlocked.')} busy={act.isPending}>
            Unlock
          </Quiet>
        ) : (
          state !== 'closed' && <Quiet onClick={() => setAsking('lock')}>Lock it</Quiet>
        )}
        {state === 'closed' ? (
          <Quiet onClick={() => go('reopen', 'Open again.')} busy={act.isPending}>
            Open it again
          </Quiet>
        ) : (
          <Quiet onClick={() => setAsking('close')}>Close the sign-in</Quiet>
        )}
      </p>
      <AlertDialog
        open={ask !== undefined}
        title={ask?.title(member.name) ?? ''}
        act={ask?.act ?? ''}
        leave="Leave it"
        busy={act.isPending}
        onAct={() => asking && go(asking, 'Done.')}
        onLeave={() => setAsking(undefined)}
      >
        <p>{ask?.follows}</p>
      </AlertDialog>
    </section>
  )
}

function Quiet({ busy = false, onClick, children }: { busy?: boolean; onClick: () => void; children: string }) {
  return (
    <button type="button" className="quiet-link" disabled={busy} onClick={onClick}>
      {children}
    </button>
  )
}

function stateWords({ state, signIns }: Member) {
  if (state === 'invited') return 'Invited; has not chosen a password yet.'
  if (state === 'locked') return 'Locked: nobody signs in with it until it is unlocked.'
  if (state === 'closed') return 'Closed: teaches here no longer.'
  return signIns === 0 ? 'Open; signed in nowhere.' : `Open; signed in on ${signIns} device${signIns === 1 ? '' : 's'}.`
}
