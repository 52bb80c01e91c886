import { useMutation, usePrefetchQuery, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { SmallFigure, figuresQuery } from '../shared/SmallFigure'
import { Opening } from '../shared/Opening'
import { posturesQuery } from '../shared/material'
import { useSignedIn } from '../shared/session'
import { useGrid } from '../ui/grid'
import { newId } from '../ui/new-id'
import { Empty, Heading, Refusal } from '../ui/states'
import { counted, demandWords } from '../ui/words'
import { emptyPosture } from './empty-posture'
import { FormsNav } from './FormsNav'
import { addPosture, takeStarter } from './data'
import { freeName } from './empty-form'

const modes = ['short-step', 'no-step', 'supported', 'seated'] as const

/** The school's postures and drills by family: how hard, what they ask for, which adapted versions are written. */
export function PosturesScreen() {
  const { isHead } = useSignedIn()
  const navigate = useNavigate()
  const postures = useQuery(posturesQuery())
  usePrefetchQuery(figuresQuery('standing'))
  const grid = useGrid<HTMLDivElement>()
  const [wanted, setWanted] = useState('')
  const add = useMutation(addPosture)
  const starter = useMutation(takeStarter)
  const write = () => {
    const text = {
      ...emptyPosture,
      name: freeName(
        'New posture',
        (postures.data ?? []).map((one) => one.name),
      ),
    }
    const id = newId()
    add.mutate({ id, text }, { onSuccess: () => void navigate(`/forms/postures/${id}?edit=1`) })
  }
  if (!postures.data) return <Opening of={[postures]} what="Opening the catalogue" />
  const text = wanted.trim().toLowerCase()
  const shown = postures.data.filter(
    (posture) =>
      !text || [posture.name, ...posture.otherNames, posture.family].some((name) => name.toLowerCase().includes(text)),
  )
  const families = [...new Set(shown.map((posture) => posture.family))].toSorted(
    (a, b) => Number(a === 'drills') - Number(b === 'drills') || a.localeCompare(b),
  )
  const count = postures.data.filter((posture) => posture.kind === 'posture').length
  return (
    <>
      <FormsNav here="/forms/postures" />
      <Heading
        title="Postures"
        facts={`${counted(count, 'posture')} and ${counted(postures.data.length - count, 'drill')}`}
      >
        <input
          type="search"
          className="field w-56"
          aria-label="Find by any name or family"
          placeholder="any name or family"
          value={wanted}
          onChange={(event) => setWanted(event.target.value)}
        />
        {isHead && (
          <button type="button" className="button button-primary" disabled={add.isPending} onClick={write}>
            Write a posture
          </button>
        )}
      </Heading>
      {(add.error ?? starter.error) && (
        <div className="px-5 pb-3">
          <Refusal error={(add.error ?? starter.error)!} />
        </div>
      )}
      {postures.data.length === 0 && (
        <Empty
          next={
            isHead && [
              {
                name: starter.isPending ? 'Taking it over…' : 'Take over the starter catalogue',
                act: () => starter.mutate(),
                busy: starter.isPending,
              },
              { name: 'Write the first posture', act: write, busy: add.isPending },
            ]
          }
        >
          No posture has been written down yet.
        </Empty>
      )}
      <div
        {...grid}
        hidden={postures.data.length === 0}
        className="flex-1 overflow-x-auto border-t border-line bg-paper"
      >
        <table className="w-full border-collapse">
          <thead>
            <tr className="border-b border-line bg-plaster text-left align-bottom">
              <th className="py-1.5 pl-5 font-semibold">posture</th>
              <th className="py-1.5 font-semibold">also called</th>
              <th className="py-1.5 text-right font-semibold">counts</th>
              <th className="px-4 py-1.5 font-semibold">difficulty</th>
              {modes.map((mode) => (
                <th key={mode} className="px-2 py-1.5 text-center font-semibold">
                  {mode}
                </th>
              ))}
              <th className="py-1.5 pr-5 pl-3 font-semibold">asks for</th>
            </tr>
          </thead>
          {families.map((family) => (
            <tbody key={family}>
              <tr>
                <th
                  colSpan={5 + modes.length}
                  scope="rowgroup"
                  className="bg-plaster px-5 pt-3 pb-1 text-left font-serif text-lead"
                >
                  {family || 'no family'}
                </th>
              </tr>
              {shown
                .filter((posture) => posture.family === family)
                .map((posture) => (
                  <tr key={posture.id} className="border-b border-fine hover:bg-pine-tint">
                    <th scope="row" className="py-1 pl-5 text-left">
                      <span className="flex items-center gap-3">
                        {/* Of fifty-eight figures ten are in sight: the others are laid out when they come there. */}
                        <span className="grid size-12 shrink-0 place-items-center [content-visibility:auto]">
                          <SmallFigure postureId={posture.id} side={posture.writtenSide} className="h-12" />
                        </span>
                        <Link
                          data-grid={`${shown.indexOf(posture)},0`}
                          tabIndex={-1}
                          to={`/forms/postures/${posture.id}`}
                          className="font-serif text-lg font-semibold"
                        >
                          {posture.name}
                        </Link>
                      </span>
                    </th>
                    <td className="text-soft">{posture.otherNames.join('; ')}</td>
                    <td className="text-right">
                      {posture.isCompound ? <span className="text-soft">parts</span> : posture.counts}
                    </td>
                    <td className="px-4">{['easy', 'middling', 'hard'][posture.difficulty - 1]}</td>
                    {modes.map((mode) => (
                      <td key={mode} className="text-center">
                        {posture.modes.includes(mode) ? (
                          <span aria-label={`${mode} version written`}>●</span>
                        ) : (
                          <span className="text-line" aria-label={`no ${mode} version`}>
                            ○
                          </span>
                        )}
                      </td>
                    ))}
                    <td className="py-1 pr-5 pl-3 text-soft">
                      {posture.demands.map((demand) => demandWords[demand]).join(', ')}
                    </td>
                  </tr>
                ))}
            </tbody>
          ))}
        </table>
      </div>
    </>
  )
}
