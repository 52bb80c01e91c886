import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { newId } from '../ui/new-id'
import { Progress } from '../ui/Progress'
import { Refusal } from '../ui/states'
import { Option, Select } from '../ui/Select'
import { moment, people } from '../ui/words'
import { importRoster, importsQuery, lookAtRoster, takeImportBack, type RosterColumn } from './data'

const fields: Record<RosterColumn, string> = {
  fullName: 'full name',
  givenName: 'given name',
  familyName: 'family name',
  sash: 'sash',
  half: 'half',
  class: 'class',
  cohort: 'cohort',
  joined: 'joined',
  sashSince: 'at the level since',
  mode: 'mode',
  aim: 'comes for',
  scope: 'wants of the syllabus',
  contactName: 'in an emergency',
  contactPhone: 'emergency telephone',
}

const fates: Record<Schema['RosterFate'], string> = {
  added: 'added',
  changed: 'changed',
  same: 'as it is',
  twice: 'stands twice',
  refused: 'refused',
}

const counted = (items: Schema['RosterItem'][]) =>
  (Object.keys(fates) as Schema['RosterFate'][])
    .map((fate) => [items.filter((item) => item.fate === fate).length, fates[fate]] as const)
    .filter(([count]) => count > 0)
    .map(([count, word]) => `${count} ${word}`)
    .join(', ') || 'No lines'

/** A spreadsheet's roster: which column means what, what would become of every line, and all of it or nothing. */
export function ImportView() {
  const [file, setFile] = useState<{ name: string; bytes: string }>()
  const [done, setDone] = useState<Schema['RosterProgress']>()
  const look = useMutation(lookAtRoster)
  const imports = useQuery(importsQuery())
  const preview = look.data
  const run = useMutation(importRoster)
  const begin = () =>
    run.mutate(
      { id: newId(), fileName: file!.name, file: file!.bytes, mapping: preview!.mapping, heard: setDone },
      {
        onSuccess: (last) => {
          if (!last.kept) return
          look.reset()
          setFile(undefined)
        },
      },
    )
  const takeBack = useMutation(takeImportBack)
  const open = async (chosen: File | undefined) => {
    if (!chosen) return
    const bytes = await base64(chosen)
    setFile({ name: chosen.name, bytes })
    setDone(undefined)
    look.mutate({ file: bytes, mapping: null })
  }
  const map = (at: number, field: RosterColumn | null) =>
    look.mutate({
      file: file!.bytes,
      mapping: preview!.mapping.map((one, place) => (place === at ? field : one === field ? null : one)),
    })
  const changes = preview ? preview.added + preview.changed : 0
  return (
    <div className="grid flex-1 content-start gap-5 border-t border-line px-5 py-4">
      <div className="flex flex-wrap items-end gap-4">
        <label className="grid gap-1 font-semibold">
          A roster from a spreadsheet (CSV)
          <input
            type="file"
            accept=".csv,.txt,.tsv,text/csv,text/plain"
            className="field font-normal"
            onChange={(event) => void open(event.target.files?.[0])}
          />
        </label>
        <p className="max-w-xl text-soft">
          Any separator and encoding, our column names or yours. Nothing is kept until you have seen what would change,
          and all of it can be taken back. Limits do not travel: they are private.
        </p>
      </div>
      {look.isError && <Refusal error={look.error} />}
      {preview && file && (
        <>
          <section aria-label="Columns">
            <h2 className="text-lg">What each column of {file.name} means</h2>
            <div className="mt-2 overflow-x-auto border border-line bg-paper">
              <table className="border-collapse">
                <thead>
                  <tr>
                    {preview.headers.map((header, at) => (
                      <th key={at} scope="col" className="min-w-36 border-b border-line px-3 py-2 text-left align-top">
                        <span className="block pb-1">{header || <span className="text-soft">no header</span>}</span>
                        <Select
                          className={`w-full font-normal ${preview.mapping[at] ? '' : 'text-soft'}`}
                          label={`Meaning of ${header}`}
                          value={preview.mapping[at] ?? ''}
                          onChange={(chosen) => map(at, chosen || null)}
                        >
                          <Option value="">pass it over</Option>
                          {Object.entries(fields).map(([value, word]) => (
                            <Option key={value} value={value}>
                              {word}
                            </Option>
                          ))}
                        </Select>
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {preview.examples.map((cells, row) => (
                    <tr key={row} className="border-b border-fine text-soft">
                      {preview.headers.map((_, at) => (
                        <td key={at} className="px-3 py-1">
                          {cells[at]}
                        </td>
                      ))}
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          </section>
          {preview.problems.length > 0 && (
            <section role="alert" aria-label="To be put right" className="border-l-4 border-lacquer pl-3">
              <p className="font-semibold">
                {preview.problems.length === 1 ? '1 thing has' : `${preview.problems.length} things have`} to be put
                right in the file, or its column passed over. Nothing is imported until then.
              </p>
              <ul className="max-h-56 overflow-y-auto">
                {preview.problems.slice(0, 200).map((problem) => (
                  <li key={problem.line + problem.column + problem.message}>
                    <b>
                      Line {problem.line}
                      {problem.column && `, ${problem.column}`}:
                    </b>{' '}
                    {problem.message}
                  </li>
                ))}
              </ul>
            </section>
          )}
          <section aria-label="What would change">
            <div className="flex flex-wrap items-center gap-4">
              <h2 className="text-lg">{counted(preview.items)}</h2>
              <button
                type="button"
                className="button button-primary"
                disabled={preview.problems.length > 0 || changes === 0 || run.isPending || look.isPending}
                onClick={begin}
              >
                Import {people(changes)}
              </button>
              {run.isPending && done && (
                <span role="status" className="flex items-center gap-2">
                  <Progress label="Importing" done={done.done} of={done.of} /> {done.done} of {done.of}
                </span>
              )}
            </div>
            <div className="mt-2 max-h-96 overflow-y-auto border border-line bg-paper">
              <table className="w-full border-collapse">
                <tbody>
                  {preview.items.slice(0, 400).map((item) => (
                    <tr key={item.line} className="border-b border-fine">
                      <td className="w-12 px-3 py-1 text-right text-soft">{item.line}</td>
                      <th scope="row" className="w-64 px-3 py-1 text-left font-semibold">
                        {item.name}
                      </th>
                      <td
                        className={`w-32 px-3 py-1 ${item.fate === 'refused' ? 'text-lacquer' : item.fate === 'added' || item.fate === 'changed' ? 'font-semibold text-pine' : 'text-soft'}`}
                      >
                        {fates[item.fate]}
                      </td>
                      <td className="px-3 py-1 text-soft">{item.changes.join('; ')}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
            {preview.items.length > 400 && (
              <p className="mt-1 text-soft">and {preview.items.length - 400} more lines</p>
            )}
          </section>
        </>
      )}
      {run.isError && <Refusal error={run.error} />}
      {done && !run.isPending && (
        <p role="status" className={`border-l-4 pl-3 ${done.kept ? 'border-pine' : 'border-lacquer'}`}>
          {done.kept ? `${people(done.done)} imported.` : `Nothing was imported. ${done.problem ?? ''}`}{' '}
          {done.kept && (
            <Link to="/people?view=roster" className="quiet-link">
              To the roster
            </Link>
          )}
        </p>
      )}
      {takeBack.isError && <Refusal error={takeBack.error} />}
      {(imports.data ?? []).length > 0 && (
        <section>
          <h2 className="text-lg">Earlier imports</h2>
          <ul className="mt-1 grid gap-1">
            {imports.data!.map((one) => (
              <li key={one.id} className="flex flex-wrap gap-4">
                <span>
                  {moment(one.at)} · <b>{one.fileName}</b> · {one.added} added, {one.changed} changed · {one.by}
                </span>
                {one.takenBack ? (
                  <span className="text-soft">taken back</span>
                ) : (
                  <button
                    type="button"
                    className="quiet-link"
                    disabled={takeBack.isPending}
                    aria-label={`Take ${one.fileName} back`}
                    onClick={() => takeBack.mutate({ id: one.id })}
                  >
                    Take it back
                  </button>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  )
}

const base64 = (file: File) =>
  new Promise<string>((done, failed) => {
    const reader = new FileReader()
    reader.onload = () => done((reader.result as string).replace(/^[^,]*,?/, ''))
    reader.onerror = () => failed(reader.error ?? new Error('The file cannot be read.'))
    reader.readAsDataURL(file)
  })
