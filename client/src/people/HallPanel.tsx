import { useMutation } from '@tanstack/react-query'
import type { Schema } from '../api/client'
import { useDraft } from '../shared/draft'
import {
  CheckField,
  ChoiceField,
  DraftProblem,
  DraftRows,
  NumberInput,
  SaveBar,
  TextField,
  TimeInput,
} from '../shared/fields'
import { leave } from '../shared/leaving'
import { useTakeOut } from '../shared/undo'
import { Panel } from '../ui/Panel'
import { Option } from '../ui/Select'
import { Refusal } from '../ui/states'
import { weekdayWords } from '../ui/words'
import { HallPlan } from './HallPlan'
import { removeHall, saveHall, type School } from './data'
import { schoolWeek } from '../ui/writing'

type Hall = School['halls'][number]
type Text = Schema['HallText']

const textOf = ({ name, width, depth, chairs, rail, railWall, hours, allowed, mirror }: Hall): Text => ({
  name,
  width,
  depth,
  chairs,
  rail,
  hours,
  allowed,
  mirror,
  railWall,
})

const shown = (field: string) =>
  ['name', 'width', 'depth', 'chairs', 'rail', 'allowed'].includes(field) || /^hours\[\d+\]\.to$/.test(field)

/** A hall: its size, what is in it, when it is open and how many it may hold. */
export function HallPanel({ hall, close }: { hall?: Hall; close: () => void }) {
  const takeAway = useTakeOut()
  const draft = useDraft<Text>({
    about: ['hall', hall?.id ?? 'new'],
    what: hall ? `the hall ${hall.name}` : 'the new hall',
    text: hall
      ? textOf(hall)
      : { name: '', width: 8, depth: 6, chairs: 0, rail: 0, hours: [], allowed: null, mirror: false, railWall: 'back' },
    version: hall?.version ?? null,
  })
  const save = useMutation(saveHall)
  const remove = useMutation(removeHall)
  const takeOut = (gone: Hall) =>
    takeAway(
      remove.mutateAsync({ id: gone.id }),
      {
        what: `taking out ${gone.name}`,
        says: `${gone.name} was taken out.`,
        back: () => save.mutateAsync({ id: gone.id, text: textOf(gone), version: null }),
      },
      close,
    )
  return (
    <Panel title={hall?.name ?? 'New hall'} close={() => leave(close)} forWriting>
      <form
        className="grid gap-4"
        noValidate
        onSubmit={draft.submit(
          (text, version) => save.mutateAsync({ id: hall?.id ?? draft.made, text, version }),
          close,
        )}
      >
        <TextField draft={draft} name="name" label="Name" />
        <div className="grid grid-cols-2 gap-3">
          <NumberInput draft={draft} name="width" label="Width along the front, m" />
          <NumberInput draft={draft} name="depth" label="Depth, m" />
          <NumberInput draft={draft} name="chairs" label="Firm chairs" />
          <NumberInput draft={draft} name="rail" label="Rail, m" />
          <NumberInput draft={draft} name="allowed" label="People allowed" mayBeEmpty />
        </div>
        {draft.text.rail > 0 && (
          <ChoiceField draft={draft} name="railWall" label="The rail runs along">
            <Option value="back">the back wall</Option>
            <Option value="left">the left wall</Option>
            <Option value="right">the right wall</Option>
            <Option value="front">the front wall</Option>
          </ChoiceField>
        )}
        <CheckField draft={draft} name="mirror" label="A mirror along the front wall" />
        <figure>
          <HallPlan hall={draft.text} width={340} />
          <figcaption className="text-soft">Front wall above; rail in green, mirror in blue.</figcaption>
        </figure>
        <DraftRows
          draft={draft}
          name="hours"
          label="Open"
          add="Add hours"
          make={() => ({ weekday: 'tuesday' as const, from: '17:00:00', to: '21:00:00' })}
        >
          {(_, at) => (
            <div className="grid grid-cols-3 gap-2">
              <ChoiceField draft={draft} name={`hours.${at}.weekday`} label="Day">
                {schoolWeek().map((value) => (
                  <Option key={value} value={value}>
                    {weekdayWords[value]}
                  </Option>
                ))}
              </ChoiceField>
              <TimeInput draft={draft} name={`hours.${at}.from`} label="From" />
              <TimeInput draft={draft} name={`hours.${at}.to`} label="To" />
            </div>
          )}
        </DraftRows>
        <DraftProblem draft={draft} shown={shown} />
        <SaveBar draft={draft} save={hall ? 'Save the hall' : 'Add the hall'} cancel={() => leave(close)} />
      </form>
      {remove.isError && <Refusal error={remove.error} />}
      {hall && (
        <button
          type="button"
          className="quiet-link justify-self-start"
          disabled={remove.isPending}
          onClick={() => takeOut(hall)}
        >
          Take the hall out
        </button>
      )}
    </Panel>
  )
}
