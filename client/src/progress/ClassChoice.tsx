import { ToggleGroup } from '../ui/ToggleGroup'

interface ClassChoiceProps {
  classes: readonly { id: string; name: string }[]
  value: string
  onChange: (id: string) => void
}

/** Which class a page is about; nothing where there is only one. */
export function ClassChoice({ classes, value, onChange }: ClassChoiceProps) {
  if (classes.length < 2) return null
  return (
    <ToggleGroup
      label="Class"
      value={value}
      options={classes.map((one) => ({ value: one.id, name: one.name }))}
      onChange={onChange}
    />
  )
}
