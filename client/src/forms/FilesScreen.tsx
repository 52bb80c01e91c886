import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schema } from '../api/client'
import { formsQuery } from '../shared/material'
import { Problem } from '../api/problem'
import { useSignedIn } from '../shared/session'
import { Heading, Refusal } from '../ui/states'
import { Option, Select } from '../ui/Select'
import { FormsNav } from './FormsNav'
import { importLibrary, lookAtLibrary } from './data'

const MOST_BYTES = 8 * 1024 * 1024
const fates: Record<Schema['ImportFate'], string> = {
  added: 'new',
  changed: 'changed',
  same: 'the same',
  clash: 'same name as ours',
}

/** Postures and forms out as files and in again. A look at what a file would do comes before anything is done. */
export function FilesScreen() {
  const { isHead } = useSignedIn()
  const forms = useQuery(formsQuery())
  return (
    <>
      <FormsNav here="/forms/files" />
      <Heading
        title="Import and export"
        facts="Postures, links, principles and forms as JSON, in a published format that reads back exactly"
      />
      <div className="grid flex-1 content-start gap-8 border-t border-line bg-paper p-5 lg:grid-cols-2">
        <section>
          <h2 className="text-lg">Export</h2>
          <ul className="mt-2 grid gap-2">
            <li>
              <a className="quiet-link" href="/api/library" download="forms.json">
                Everything: the catalogue, links, principles and all forms
              </a>
            </li>
            {forms.data?.map((form) => (
              <li key={form.id}>
                <a className="quiet-link" href={`/api/library?form=${form.id}`} download={`${form.name}.json`}>
                  {form.name}
                </a>{' '}
                with what it is made of ·{' '}
                <a className="quiet-link" href={`/api/forms/${form.id}/positions.csv`} download={`${form.name}.csv`}>
                  its positions as a table
                </a>{' '}
                ·{' '}
                <a className="quiet-link" href={`/api/forms/${form.id}/floor.svg`} download={`${form.name}.svg`}>
                  its floor map
                </a>
              </li>
            ))}
          </ul>
        </section>
        {isHead && <ImportFile />}
      </div>
    </>
  )
}

function ImportFile() {
  const [file, setFile] = useState<{ name: string; text: string } | null>(null)
  const [tooLarge, setTooLarge] = useState<string | null>(null)
  const [choices, setChoices] = useState<Record<string, Schema['ImportChoice']>>({})
  const preview = useMutation(lookAtLibrary)
  const bring = useMutation(importLibrary)

  const read = async (chosen: File | undefined) => {
    preview.reset()
    bring.reset()
    setChoices({})
    setFile(null)
    setTooLarge(null)
    if (!chosen) return
    if (chosen.size > MOST_BYTES) {
      setTooLarge(
        `${chosen.name} has ${Math.round(chosen.size / 1024 / 1024)} MB; a form library has at most 8. Nothing was read.`,
      )
      return
    }
    const text = await chosen.text()
    setFile({ name: chosen.name, text })
    preview.mutate({ file: text })
  }
  const data = preview.data
  const items = data?.items.filter((item) => item.fate !== 'same') ?? []
  const same = (data?.items.length ?? 0) - items.length
  return (
    <section>
      <h2 className="text-lg">Import</h2>
      <label className="mt-2 grid max-w-md gap-1 font-semibold">
        A form library, JSON
        <input
          type="file"
          accept=".json,application/json"
          className="field font-normal"
          onChange={(event) => void read(event.target.files?.[0])}
        />
      </label>
      {tooLarge && (
        <p role="alert" className="mt-3 border-l-4 border-lacquer pl-3">
          {tooLarge}
        </p>
      )}
      {preview.isPending && <p className="mt-3 text-soft">Reading {file?.name}…</p>}
      {preview.isError && (
        <div className="mt-3">
          <Refusal error={preview.error} />
        </div>
      )}
      {data && data.problems.length > 0 && (
        <div role="alert" className="mt-3 border-l-4 border-lacquer pl-3">
          <p className="font-semibold">{file?.name} cannot be taken in. Nothing was changed.</p>
          <ul>
            {data.problems.map((problem) => (
              <li key={`${problem.line}:${problem.column}:${problem.message}`}>
                Line {problem.line}, column {problem.column}: {problem.message}
              </li>
            ))}
          </ul>
        </div>
      )}
      {data && data.problems.length === 0 && !bring.isSuccess && (
        <div className="mt-3 grid gap-3">
          <p>
            {items.length === 0
              ? 'Everything in this file is in the school already, word for word.'
              : `${items.length} things would change; ${same} are in the school already, word for word.`}
          </p>
          {items.length > 0 && (
            <table className="w-full border-collapse">
              <tbody>
                {items.map((item) => (
                  <tr key={item.kind + item.id} className="border-b border-fine align-top">
                    <td className="py-1 pr-3 text-soft">{item.kind}</td>
                    <th scope="row" className="py-1 pr-3 text-left font-serif font-semibold">
                      {item.name}
                    </th>
                    <td className="py-1 pr-3">
                      <span className={item.fate === 'clash' ? 'font-semibold text-ochre' : ''}>
                        {fates[item.fate]}
                      </span>
                      {item.differences.length > 0 && (
                        <span className="block text-soft">{item.differences.join(', ')}</span>
                      )}
                    </td>
                    <td className="py-1">
                      {item.fate !== 'added' && (
                        <Select
                          label={`What to do with ${item.name}`}
                          value={choices[item.id] ?? (item.fate === 'clash' ? 'ours' : 'theirs')}
                          onChange={(chosen) => setChoices({ ...choices, [item.id]: chosen })}
                        >
                          <Option value="theirs">
                            {item.fate === 'clash' ? 'add it under another name' : 'take the file’s'}
                          </Option>
                          <Option value="ours">{item.fate === 'clash' ? 'it is ours: use ours' : 'keep ours'}</Option>
                        </Select>
                      )}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {items.length > 0 && (
            <button
              type="button"
              className="button button-primary justify-self-start"
              disabled={bring.isPending}
              onClick={() => bring.mutate({ file: file!.text, choices })}
            >
              {bring.isPending ? 'Taking it in…' : 'Take it in'}
            </button>
          )}
          {bring.isError && <Refusal error={bring.error} shown={[]} />}
        </div>
      )}
      {bring.data && (
        <p className="mt-3 border-l-4 border-pine pl-3" aria-live="polite">
          Taken in: {bring.data.postures} postures, {bring.data.links} links, {bring.data.principles} principles,{' '}
          {bring.data.forms} forms.
        </p>
      )}
      {bring.error instanceof Problem && bring.error.status === 409 && (
        <p className="mt-2">Choose the file again to see what it would do now.</p>
      )}
    </section>
  )
}
