import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it, vi } from 'vitest'
import { draw } from '../testing/render'
import { useUndo } from './undo'

function Room({ back }: { back: (what: string) => Promise<unknown> }) {
  const { last, undo, did, refused } = useUndo()
  return (
    <>
      {['Press', 'Push'].map((what) => (
        <button
          key={what}
          type="button"
          onClick={() => did({ what: `taking out ${what}`, says: `${what} was taken out.`, back: () => back(what) })}
        >
          take out {what}
        </button>
      ))}
      <button type="button" onClick={undo}>
        {last ? `Undo ${last.what}` : 'nothing to undo'}
      </button>
      <input aria-label="words" />
      <p>{refused?.message}</p>
    </>
  )
}

describe('undo', () => {
  it('takes back the newest first, by key or by the button that says so', async () => {
    const back = vi.fn(() => Promise.resolve())
    draw(<Room back={back} />)
    await userEvent.click(screen.getByText('take out Press'))
    await userEvent.click(screen.getByText('take out Push'))
    expect(await screen.findByText('Push was taken out.')).toBeTruthy()
    await userEvent.click(screen.getByText('Undo taking out Push'))
    await screen.findByText('Undo taking out Press')
    await userEvent.keyboard('z')
    await screen.findByText('nothing to undo')
    expect(back.mock.calls).toEqual([['Push'], ['Press']])
    await waitFor(() => expect(screen.queryByText('Press was taken out.')).toBeNull())
  })

  it('keeps a step that could not be taken back, and says why', async () => {
    draw(<Room back={() => Promise.reject(new Error('Its name is taken.'))} />)
    await userEvent.click(screen.getByText('take out Press'))
    await userEvent.click(screen.getByText('Undo taking out Press'))
    await screen.findByText('Its name is taken.')
    expect(screen.getByText('Undo taking out Press')).toBeTruthy()
  })

  it('leaves a z alone that is typed', async () => {
    const back = vi.fn(() => Promise.resolve())
    draw(<Room back={back} />)
    await userEvent.click(screen.getByText('take out Press'))
    await userEvent.type(screen.getByLabelText('words'), 'zz')
    expect(back).not.toHaveBeenCalled()
  })
})
