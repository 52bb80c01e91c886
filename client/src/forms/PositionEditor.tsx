import type { Schema } from '../api/client'
import { Dial } from '../ui/Dial'
import { Kbd } from '../ui/Kbd'
import { clock } from '../ui/words'

type Position = Schema['FormPositionResponse']

interface PositionEditorProps {
  position: Position
  disabled: boolean
  edit: (part: Partial<Position>, what: string) => void
  move: (by: -1 | 1) => void
  mirror: () => void
}

const directions = [0, 45, 90, 135, 180, 225, 270, 315]

/** Order, side, turn and facing of one position. */
export function PositionEditor({ position, disabled, edit, move, mirror }: PositionEditorProps) {
  return (
    <fieldset disabled={disabled} className="grid gap-3 rounded-lg border border-line bg-paper p-3">
      <legend className="px-1 font-semibold">This position</legend>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="button" onClick={() => move(-1)}>
          Move up
        </button>
        <button type="button" className="button" onClick={() => move(1)}>
          Move down
        </button>
        {position.hasSides && (
          <button type="button" className="button" onClick={mirror}>
            Do it on the {position.side === 'left' ? 'right' : 'left'} <Kbd>m</Kbd>
          </button>
        )}
      </div>
      <div className="flex flex-wrap items-end gap-x-5 gap-y-3">
        <div role="group" aria-label="Ends facing">
          <span className="font-semibold">Ends facing</span>
          <div className="mt-1 flex">
            {directions.map((degrees) => (
              <button
                key={degrees}
                type="button"
                title={clock(degrees)}
                aria-pressed={degrees === position.facing}
                className={`grid size-9 place-items-center rounded ${degrees === position.facing ? 'bg-pine-tint' : 'hover:bg-plaster'}`}
                onClick={() => degrees !== position.facing && edit({ facing: degrees }, `facing ${clock(position.facing)}`)}
              >
                <Dial facing={degrees} size={24} />
              </button>
            ))}
          </div>
        </div>
        <label className="grid gap-1 font-semibold">
          Turn to get here
          <select className="field font-normal" value={position.turn} onChange={(event) => edit({ turn: Number(event.target.value) }, `turning ${position.turn}°`)}>
            {[...new Set([position.turn, -270, -225, -180, -135, -90, -45, 0, 45, 90, 135, 180, 225, 270])]
              .toSorted((a, b) => a - b)
              .map((turn) => (
                <option key={turn} value={turn}>
                  {turn === 0 ? 'none' : `${Math.abs(turn)}° ${turn > 0 ? 'right' : 'left'}`}
                </option>
              ))}
          </select>
        </label>
      </div>
    </fieldset>
  )
}
