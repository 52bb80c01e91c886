import { memo } from 'react'
import type { Schema } from '../api/client'
import { Checkbox } from '../ui/Checkbox'
import { Choice } from '../ui/Field'
import { Rows } from '../ui/Rows'
import { Option } from '../ui/Select'
import type { ChangePosture, PostureText } from './data'
import { emptyCount } from './empty-posture'

/** Another posture it takes its counts from, where they are not its own. */
export const BuiltFrom = memo(function BuiltFrom({
  name,
  builtFrom,
  change,
  postures,
}: Pick<PostureText, 'name' | 'builtFrom'> & {
  change: ChangePosture
  postures: Schema['PostureItem'][]
}) {
  return (
    <div className="flex flex-wrap items-end gap-4">
      <Choice
        label="Built from"
        value={builtFrom?.postureId ?? ''}
        onChange={(id) => change({ builtFrom: id ? { postureId: id, mirrored: builtFrom?.mirrored ?? false } : null })}
      >
        <Option value="">nothing: all of it is written here</Option>
        {postures
          .filter((one) => !one.isCompound && one.name !== name)
          .map((one) => (
            <Option key={one.id} value={one.id}>
              {one.name}
            </Option>
          ))}
      </Choice>
      {builtFrom && (
        <Checkbox
          checked={builtFrom.mirrored}
          onChange={(checked) => change({ builtFrom: { ...builtFrom, mirrored: checked } })}
        >
          its other side
        </Checkbox>
      )}
      {!builtFrom && (
        <button
          type="button"
          className="quiet-link pb-2"
          onClick={() =>
            change({
              counts: [],
              merged: [],
              parts: [{ postureId: postures.find((one) => !one.isCompound)!.id, side: 'left' }],
            })
          }
        >
          Make it a compound of other postures
        </button>
      )}
    </div>
  )
})

/** The parts of a compound posture, which has no counts of its own. */
export function PartsPage({
  draft,
  change,
  at,
  postures,
}: {
  draft: PostureText
  change: ChangePosture
  at: (field: string) => string | undefined
  postures: Schema['PostureItem'][]
}) {
  return (
    <div className="grid max-w-2xl gap-4">
      <p className="text-soft">
        A compound posture is its parts. In a form its parts stand as positions that say they belong to it, and the
        school’s numbering counts them as one or one by one.
      </p>
      <Rows<Schema['Part']>
        label="Parts"
        items={draft.parts}
        add="Add a part"
        make={() => ({ postureId: postures.find((one) => !one.isCompound)!.id, side: 'left' })}
        onChange={(parts) => change(parts.length === 0 ? { parts, counts: [emptyCount] } : { parts })}
      >
        {(item, edit, index) => (
          <div className="grid grid-cols-2 gap-3">
            <Choice
              label="Posture"
              value={item.postureId}
              error={at(`parts[${index}].postureId`)}
              onChange={(postureId) =>
                edit({ postureId, side: postures.find((one) => one.id === postureId)?.writtenSide ?? 'left' })
              }
            >
              {postures
                .filter((one) => !one.isCompound)
                .map((one) => (
                  <Option key={one.id} value={one.id}>
                    {one.name}
                  </Option>
                ))}
            </Choice>
            <Choice
              label="Side"
              value={item.side}
              error={at(`parts[${index}].side`)}
              onChange={(side) => edit({ side: side })}
            >
              <Option value="left">left</Option>
              <Option value="right">right</Option>
              <Option value="symmetric">no side</Option>
            </Choice>
          </div>
        )}
      </Rows>
    </div>
  )
}
