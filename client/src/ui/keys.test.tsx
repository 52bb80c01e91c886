import { fireEvent, render, screen } from '@testing-library/react'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { singleKeys, useKeys } from './keys'

function Screen({ handle }: { handle: (key: string) => boolean }) {
  useKeys((event) => handle(event.key))
  return (
    <>
      <input aria-label="name" />
      <textarea aria-label="note" />
      <button type="button">a button</button>
      <div role="listbox">
        <div role="option" aria-selected={false} tabIndex={0}>
          an option
        </div>
      </div>
    </>
  )
}

const press = (element: Element | Window, key: string, rest: KeyboardEventInit = {}) =>
  fireEvent.keyDown(element, { key, cancelable: true, ...rest })

describe('single letters', () => {
  const handle = vi.fn(() => true)
  beforeEach(() => {
    handle.mockClear()
    render(<Screen handle={handle} />)
  })

  it('work wherever nobody types', () => {
    press(document.body, 'z')
    press(screen.getByText('a button'), 'p')
    expect(handle.mock.calls.flat()).toEqual(['z', 'p'])
  })

  it('are left to whoever types, chooses from a list, or holds another key', () => {
    press(screen.getByLabelText('name'), 'z')
    press(screen.getByLabelText('note'), 'z')
    press(screen.getByText('an option'), 'z')
    press(document.body, 'z', { ctrlKey: true })
    press(document.body, 'z', { metaKey: true })
    press(document.body, 'z', { altKey: true })
    expect(handle).not.toHaveBeenCalled()
  })

  it('do nothing when they are switched off, and Escape still does', () => {
    singleKeys.set(false)
    press(document.body, 'z')
    press(document.body, 'Escape')
    expect(handle.mock.calls.flat()).toEqual(['Escape'])
    singleKeys.set(true)
    press(document.body, 'z')
    expect(handle.mock.calls.flat()).toEqual(['Escape', 'z'])
  })

  it('are taken from the browser only when they did something', () => {
    handle.mockReturnValueOnce(false)
    expect(press(document.body, 'q')).toBe(true)
    expect(press(document.body, 'z')).toBe(false)
  })

  it('are not taken twice', () => {
    const taken = new KeyboardEvent('keydown', { key: 'z', bubbles: true, cancelable: true })
    taken.preventDefault()
    fireEvent(document.body, taken)
    expect(handle).not.toHaveBeenCalled()
  })
})
