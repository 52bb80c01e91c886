import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useId, useRef } from 'react'
import { Opening } from '../shared/Opening'
import { useSignedIn } from '../shared/session'
import { useUndo } from '../shared/undo'
import { conventionsQuery } from '../shared/ways'
import { Option, Select } from '../ui/Select'
import { Refusal } from '../ui/states'
import { saveConventions } from './data'
import { settings, type Setting } from './settings'

/** What schools do differently: each with a sentence on what the choice means; a change is in force everywhere at once, and can be taken back. */
export function ConventionsView() {
  const { isHead } = useSignedIn()
  const { did } = useUndo()
  const conventions = useQuery(conventionsQuery())
  const save = useMutation(saveConventions)
  const queries = useQueryClient()
  const before = useRef<Promise<unknown>>(Promise.resolve())
  if (!conventions.data) return <Opening of={[conventions]} what="Opening the conventions" />
  const { ways } = conventions.data
  const change = async (setting: Setting, value: string) => {
    const { ways, version } = await queries.ensureQueryData(conventionsQuery())
    const saved = await save.mutateAsync({ ways: setting.set(ways, value), version })
    did({
      what: `“${setting.name}”`,
      back: () => save.mutateAsync({ ways: setting.set(saved.ways, setting.value(ways)), version: saved.version }),
    })
  }
  // One after the other: each begins from what the one before has saved. A refusal is shown above them.
  const set = (setting: Setting, value: string) => {
    before.current = before.current.then(() => change(setting, value)).catch(() => undefined)
  }
  return (
    <>
      <h2 className="text-lg">How this school does it</h2>
      {save.isError && (
        <div className="mt-2">
          <Refusal
            error={save.error}
            reload={() => {
              save.reset()
              void conventions.refetch()
            }}
          />
        </div>
      )}
      <ul className="mt-2 border-t border-line bg-paper">
        {settings.map((setting) => (
          <SettingRow
            key={setting.name}
            setting={setting}
            value={setting.value(ways)}
            disabled={!isHead}
            set={(value) => set(setting, value)}
          />
        ))}
      </ul>
    </>
  )
}

function SettingRow({
  setting,
  value,
  disabled,
  set,
}: {
  setting: Setting
  value: string
  disabled: boolean
  set: (value: string) => void
}) {
  const id = useId()
  const options = setting.options.some(([one]) => one === value)
    ? setting.options
    : [...setting.options, [value, value] as [string, string]]
  return (
    <li className="grid items-center gap-x-4 gap-y-2 border-b border-fine px-3 py-2 sm:grid-cols-[minmax(0,1fr)_250px]">
      <span>
        <label htmlFor={id} className="font-semibold">
          {setting.name}
        </label>
        <span className="block text-soft">{setting.means}</span>
      </span>
      <Select id={id} className="w-full" value={value} disabled={disabled} onChange={set}>
        {options.map(([one, name]) => (
          <Option key={one} value={one}>
            {name}
          </Option>
        ))}
      </Select>
    </li>
  )
}
