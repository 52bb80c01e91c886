import { render, screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { describe, expect, it, vi } from 'vitest'
import { AlertDialog } from './AlertDialog'
import { Checkbox } from './Checkbox'
import { Collapsible } from './Collapsible'
import { ContextMenu } from './ContextMenu'
import { DropdownMenu } from './DropdownMenu'
import { Choice, DateField, NumberField, TimeField } from './Field'
import { Panel } from './Panel'
import { Popover } from './Popover'
import { Progress } from './Progress'
import { RadioGroup } from './RadioGroup'
import { SavedField, SavedNumber } from './SavedField'
import { Option, Select } from './Select'
import { Slider } from './Slider'
import { Switch } from './Switch'
import { TabList, TabPanel, Tabs } from './Tabs'
import { ToggleGroup } from './ToggleGroup'
import { Toolbar, ToolbarButton } from './Toolbar'
import { Tooltip } from './Tooltip'

const user = userEvent.setup({ pointerEventsCheck: 0 })

function Sashes({ choose }: { choose: (value: string) => void }) {
  const [value, setValue] = useState('fern')
  return (
    <Choice
      label="Sash"
      value={value}
      onChange={(chosen) => {
        setValue(chosen)
        choose(chosen)
      }}
    >
      <Option value="">no sash</Option>
      <Option value="fern">Fern</Option>
      <Option value="copper">Copper</Option>
      <Option value="garnet" disabled>
        Garnet
      </Option>
    </Choice>
  )
}

describe('Select', () => {
  it('opens on an arrow key and changes nothing before an option is taken', async () => {
    const choose = vi.fn()
    render(<Sashes choose={choose} />)
    screen.getByLabelText('Sash').focus()
    await user.keyboard('{ArrowDown}')
    expect(choose).not.toHaveBeenCalled()
    expect(within(screen.getByRole('listbox')).getByRole('option', { name: 'Fern' }).getAttribute('data-state')).toBe(
      'checked',
    )
    await user.keyboard('{ArrowDown}{Enter}')
    expect(choose).toHaveBeenCalledWith('copper')
    expect(document.activeElement).toBe(screen.getByLabelText('Sash'))
  })

  it('has the empty value as an option like others', async () => {
    const choose = vi.fn()
    render(<Sashes choose={choose} />)
    await user.click(screen.getByLabelText('Sash'))
    await user.click(screen.getByRole('option', { name: 'no sash' }))
    expect(choose).toHaveBeenCalledWith('')
    expect(screen.getByLabelText('Sash').textContent).toBe('no sash')
  })

  it('closes on Escape and leaves everything as it was', async () => {
    const choose = vi.fn()
    render(<Sashes choose={choose} />)
    await user.click(screen.getByLabelText('Sash'))
    await user.keyboard('{ArrowDown}{Escape}')
    expect(screen.queryByRole('listbox')).toBeNull()
    expect(choose).not.toHaveBeenCalled()
  })

  it('shows its placeholder while nothing is chosen', () => {
    render(
      <Select label="Hall" value="" placeholder="choose a hall" onChange={vi.fn()}>
        <Option value="lower">Lower Hall</Option>
      </Select>,
    )
    expect(screen.getByLabelText('Hall').textContent).toBe('choose a hall')
  })
})

describe('Checkbox', () => {
  it('is ticked by its words and by the space bar, and knows a third state', async () => {
    const change = vi.fn()
    const { rerender } = render(
      <Checkbox checked="indeterminate" onChange={change}>
        Press, new
      </Checkbox>,
    )
    expect(screen.getByRole('checkbox').getAttribute('aria-checked')).toBe('mixed')
    await user.click(screen.getByText('Press, new'))
    expect(change).toHaveBeenLastCalledWith(true)
    rerender(
      <Checkbox checked onChange={change}>
        Press, new
      </Checkbox>,
    )
    screen.getByRole('checkbox').focus()
    await user.keyboard(' ')
    expect(change).toHaveBeenLastCalledWith(false)
  })
})

it('RadioGroup moves with the arrows and says its name', async () => {
  const change = vi.fn()
  render(
    <RadioGroup
      label="Is it held?"
      value="yes"
      options={[
        { value: 'yes', name: 'Yes' },
        { value: 'no', name: 'No' },
      ]}
      onChange={change}
    />,
  )
  expect(screen.getByRole('radiogroup', { name: 'Is it held?' })).toBeTruthy()
  await user.click(screen.getByText('No'))
  expect(change).toHaveBeenCalledWith('no')
})

it('Switch turns on and off by its words', async () => {
  const change = vi.fn()
  render(
    <Switch on onChange={change}>
      Single letters do something
    </Switch>,
  )
  await user.click(screen.getByText('Single letters do something'))
  expect(change).toHaveBeenCalledWith(false)
})

it('Slider goes by keys, to both its ends, and says in words where it is', async () => {
  const change = vi.fn()
  render(<Slider label="Count" value={2} min={-1} max={6} onChange={change} says="step left" />)
  const thumb = screen.getByRole('slider', { name: 'Count' })
  expect(thumb.getAttribute('aria-valuetext')).toBe('step left')
  thumb.focus()
  await user.keyboard('{ArrowRight}')
  expect(change).toHaveBeenLastCalledWith(3)
  await user.keyboard('{Home}')
  expect(change).toHaveBeenLastCalledWith(-1)
  await user.keyboard('{End}')
  expect(change).toHaveBeenLastCalledWith(6)
})

it('ToggleGroup never has none of them', async () => {
  const change = vi.fn()
  render(
    <ToggleGroup
      label="Side"
      value="left"
      options={[
        { value: 'left', name: 'Left' },
        { value: 'right', name: 'Right' },
      ]}
      onChange={change}
    />,
  )
  await user.click(screen.getByText('Left'))
  expect(change).not.toHaveBeenCalled()
  await user.click(screen.getByText('Right'))
  expect(change).toHaveBeenCalledWith('right')
})

it('Tabs go with the arrows, and the panel belongs to its tab', async () => {
  function Parts() {
    const [part, setPart] = useState('about')
    return (
      <Tabs value={part} onChange={setPart}>
        <TabList
          label="Part"
          options={[
            { value: 'about', name: 'About' },
            { value: 'limits', name: 'Limits' },
          ]}
        />
        <TabPanel value="about">Imke</TabPanel>
        <TabPanel value="limits">none</TabPanel>
      </Tabs>
    )
  }
  render(<Parts />)
  screen.getByRole('tab', { name: 'About' }).focus()
  await user.keyboard('{ArrowRight}')
  expect(screen.getByRole('tab', { name: 'Limits' }).getAttribute('aria-selected')).toBe('true')
  expect(screen.getByRole('tabpanel', { name: 'Limits' }).textContent).toBe('none')
})

describe('AlertDialog', () => {
  it('has the focus on the way out, and Escape takes it', async () => {
    const [act, stay] = [vi.fn(), vi.fn()]
    render(
      <AlertDialog open title="Erase Imke?" act="Erase for good" leave="Keep" onAct={act} onLeave={stay}>
        <p>This cannot be undone.</p>
      </AlertDialog>,
    )
    expect(document.activeElement).toBe(screen.getByText('Keep'))
    await user.keyboard('{Escape}')
    expect(stay).toHaveBeenCalled()
    await user.click(screen.getByText('Erase for good'))
    expect(act).toHaveBeenCalledTimes(1)
  })
})

it('Popover opens from its button and gives the focus back', async () => {
  function Keys() {
    const [open, setOpen] = useState(false)
    return (
      <Popover label="Keys" open={open} onOpenChange={setOpen} trigger={<button type="button">Keys</button>}>
        <p>g then f</p>
      </Popover>
    )
  }
  render(<Keys />)
  await user.click(screen.getByRole('button', { name: 'Keys' }))
  expect(screen.getByRole('dialog', { name: 'Keys' })).toBeTruthy()
  await user.keyboard('{Escape}')
  expect(screen.queryByRole('dialog')).toBeNull()
  expect(document.activeElement).toBe(screen.getByRole('button', { name: 'Keys' }))
})

it('Tooltip is there for whoever comes by key', async () => {
  render(
    <Tooltip says="four of five by then">
      <button type="button">cautious 5 Jan</button>
    </Tooltip>,
  )
  await user.tab()
  expect((await screen.findByRole('tooltip')).textContent).toContain('four of five by then')
})

describe('menus', () => {
  it('do nothing before one thing is chosen, and lead on to others', async () => {
    const act = vi.fn<(what: string) => void>()
    render(
      <DropdownMenu
        name="Move to a cohort"
        items={[
          { name: 'Tuesday evening', items: [{ name: 'Copper', act: () => act('copper') }] },
          { name: 'nobody', disabled: true },
        ]}
      />,
    )
    screen.getByRole('button').focus()
    await user.keyboard('{ArrowDown}')
    expect(act).not.toHaveBeenCalled()
    await user.keyboard('{ArrowRight}')
    await user.keyboard('{Enter}')
    await waitFor(() => expect(act).toHaveBeenCalledWith('copper'))
    expect(screen.queryByRole('menu')).toBeNull()
  })

  it('of a board are about what was pressed', async () => {
    const pressed = vi.fn<(chip: string | undefined) => void>()
    render(
      <ContextMenu
        items={[{ name: 'Keep on this date', act: vi.fn() }]}
        onOpen={(element) => pressed(element.dataset.chip)}
      >
        <div>
          <button type="button" data-chip="press">
            Press R
          </button>
        </div>
      </ContextMenu>,
    )
    await user.pointer({ keys: '[MouseRight]', target: screen.getByText('Press R') })
    expect(pressed).toHaveBeenCalledWith('press')
    expect(await screen.findByRole('menuitem', { name: 'Keep on this date' })).toBeTruthy()
  })
})

it('Collapsible makes what is in it when it is opened', async () => {
  const made = vi.fn(() => <p>6.3 min</p>)
  const Sum = () => made()
  render(
    <Collapsible name="What it takes">
      <Sum />
    </Collapsible>,
  )
  expect(made).not.toHaveBeenCalled()
  await user.click(screen.getByRole('button', { name: 'What it takes' }))
  expect(screen.getByText('6.3 min')).toBeTruthy()
})

it('Progress says how far it is', () => {
  render(<Progress label="Importing" done={3} of={8} />)
  const bar = screen.getByRole('progressbar', { name: 'Importing' })
  expect([bar.getAttribute('aria-valuenow'), bar.getAttribute('aria-valuemax')]).toEqual(['3', '8'])
})

it('Toolbar is one stop, with arrows within', async () => {
  render(
    <Toolbar label="Play">
      <ToolbarButton>back</ToolbarButton>
      <ToolbarButton>on</ToolbarButton>
    </Toolbar>,
  )
  await user.tab()
  await user.keyboard('{ArrowRight}')
  expect(document.activeElement).toBe(screen.getByText('on'))
  await user.tab()
  expect(document.activeElement).toBe(document.body)
})

describe('Panel', () => {
  const opened = (wide: boolean, close = vi.fn()) => {
    vi.spyOn(window, 'matchMedia').mockImplementation(
      (query) =>
        ({
          matches: wide,
          media: query,
          addEventListener: vi.fn(),
          removeEventListener: vi.fn(),
        }) as unknown as MediaQueryList,
    )
    render(
      <Panel title="Imke R." close={close} forWriting>
        <input aria-label="Name" />
      </Panel>,
    )
    return close
  }

  it('stands beside the picture where there is room, takes the focus, and goes by Escape', async () => {
    const close = opened(true)
    expect(screen.getByRole('complementary')).toBeTruthy()
    expect(document.activeElement).toBe(screen.getByRole('heading', { name: 'Imke R.' }))
    await user.keyboard('{Escape}')
    expect(close).toHaveBeenCalledTimes(1)
  })

  it('is a sheet from below on a small screen', async () => {
    const close = opened(false)
    expect(screen.getByRole('dialog')).toBeTruthy()
    await user.click(screen.getByText('Close'))
    expect(close).toHaveBeenCalledTimes(1)
  })
})

describe('fields', () => {
  it('a date is shown as the school writes it and read as people do', async () => {
    function Day() {
      const [day, setDay] = useState('2026-11-24')
      return (
        <>
          <DateField label="Held on" value={day} onChange={setDay} />
          <p>{day || 'none'}</p>
        </>
      )
    }
    render(<Day />)
    const field = screen.getByLabelText<HTMLInputElement>('Held on')
    expect(field.value).toBe('24 Nov 2026')
    await user.clear(field)
    expect(screen.getByText('none')).toBeTruthy()
    await user.type(field, '1.12.')
    expect(screen.getByText('2026-12-01')).toBeTruthy()
    await user.tab()
    expect(field.value).toBe('1 Dec 2026')
    await user.clear(field)
    await user.type(field, '31.11.2026')
    expect(screen.getByRole('alert').textContent).toContain('Write a date as')
    await user.tab()
    expect(field.value).toBe('31.11.2026')
  })

  it('a time is read as people write it', async () => {
    const change = vi.fn()
    render(<TimeField label="Starts at" value="18:30:00" onChange={change} />)
    const field = screen.getByLabelText<HTMLInputElement>('Starts at')
    expect(field.value).toBe('18:30')
    await user.clear(field)
    await user.type(field, '7.15')
    expect(change).toHaveBeenLastCalledWith('07:15:00')
  })

  it('a number can be on its way', async () => {
    function Metres() {
      const [metres, setMetres] = useState<number | null>(8)
      return (
        <>
          <NumberField label="Width, m" value={metres} onChange={setMetres} />
          <button type="button" onClick={() => setMetres(12)}>
            twelve
          </button>
        </>
      )
    }
    render(<Metres />)
    const field = screen.getByLabelText<HTMLInputElement>('Width, m')
    await user.clear(field)
    await user.type(field, '10,')
    expect(field.value).toBe('10,')
    await user.type(field, '5 metres')
    expect(screen.getByRole('alert').textContent).toBe('This is no number.')
    await user.click(screen.getByText('twelve'))
    expect(field.value).toBe('12')
  })

  it('what is saved when it is left is not replaced while it is written', async () => {
    const save = vi.fn()
    const { rerender } = render(<SavedField label="Note" value="low" save={save} />)
    const field = screen.getByLabelText<HTMLInputElement>('Note')
    await user.type(field, 'er')
    rerender(<SavedField label="Note" value="theirs" save={save} />)
    expect(field.value).toBe('lower')
    await user.tab()
    expect(save).toHaveBeenCalledWith('lower')
    await user.type(field, '!{Escape}')
    expect(field.value).toBe('theirs')
    await user.tab()
    expect(save).toHaveBeenCalledTimes(1)
  })

  it('a number that is none is not saved', async () => {
    const save = vi.fn()
    render(<SavedNumber label="Minutes" value={null} save={save} />)
    await user.type(screen.getByLabelText('Minutes'), 'long{Enter}')
    expect(save).not.toHaveBeenCalled()
    await user.type(screen.getByLabelText('Minutes'), '12,5{Enter}')
    expect(save).toHaveBeenCalledWith(12.5)
  })
})
