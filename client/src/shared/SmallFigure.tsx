import { queryOptions, useQuery } from '@tanstack/react-query'
import { answer, api, type Schema } from '../api/client'
import { Figure } from '../ui/Figure'

/** All small figures of a mode at once: lists show many of them. They change when a posture does, and are asked for anew with the catalogue. */
export const figuresQuery = (mode: string) =>
  queryOptions({
    queryKey: ['postures', 'figures', mode],
    queryFn: async () => {
      const shapes = await answer(api.GET('/api/figures', { params: { query: { mode } } }))
      return new Map(shapes.map((shape) => [shape.postureId + shape.side, shape]))
    },
    staleTime: 300_000,
  })

/** As the server draws a sash that is no cohort's. */
const NOBODYS_SASH = '#AE6A38'

interface SmallFigureProps {
  postureId: string
  side: Schema['Side']
  /** How it is done; standing unless it is said. */
  mode?: string | undefined
  /** The cohort's colour; nobody's sash unless it is said. */
  sash?: string
  /** As in a mirror: how a teacher who faces the class does it. */
  mirrored?: boolean
  /** What it shows, where its name does not stand beside it. */
  label?: string
  className?: string
}

/** A posture, small, beside its name: how it ends, or the count that shows it better; nothing where no body is written or it has not arrived yet. */
export function SmallFigure({
  postureId,
  side,
  mode = 'standing',
  sash,
  mirrored = false,
  label,
  className = '',
}: SmallFigureProps) {
  const shape = useQuery(figuresQuery(mode)).data?.get(postureId + side)
  if (!shape) return null
  const figure = (
    <Figure
      box={shape.box}
      shapes={shape.shapes.map(({ path, fill, edge, edgeWidth }) => ({
        path,
        fill: fill === NOBODYS_SASH && sash ? sash : fill,
        edge,
        width: Number(edgeWidth),
      }))}
      label={label ?? ''}
      className={`${mirrored ? '-scale-x-100' : ''} ${className}`}
    />
  )
  return label ? figure : <span aria-hidden>{figure}</span>
}
