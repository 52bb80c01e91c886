import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { newId } from '../ui/new-id'
import { Progress } from '../ui/Progress'
import { Refusal } from '../ui/states'
import { people } from '../ui/words'
import { importRoster, lookAtRoster, type RosterAnswers, type RosterPreview, type RosterProgress } from './data'
import { EarlierImports } from './EarlierImports'
import { ImportColumns } from './ImportColumns'
import { ImportLines } from './ImportLines'
import { ImportQuestions } from './ImportQuestions'

const nothingSaid: RosterAnswers = {
  headerLine: null,
  columns: null,
  dayFirst: null,
  words: [],
  leftOut: [],
  samePerson: [],
  anotherPerson: [],
}

interface Chosen {
  name: string
  bytes: string
  sheet: string | null
}

/** What came of it, and what was left out of it to be put right on paper. */
interface Done extends RosterProgress {
  leftOut: RosterPreview['items']
}

/** A spreadsheet's roster: which column means what, what would become of every line, and all of it or nothing. */
export function ImportView() {
  const [file, setFile] = useState<Chosen>()
  const [answers, setAnswers] = useState(nothingSaid)
  const [done, setDone] = useState<Done>()
  const look = useMutation(lookAtRoster)
  const run = useMutation(importRoster)
  const preview = look.data
  const read = (chosen: Chosen, said: RosterAnswers) => {
    setFile(chosen)
    setAnswers(said)
    setDone(undefined)
    look.mutate({ file: chosen.bytes, sheet: chosen.sheet, answers: said })
  }
  const say = (part: Partial<RosterAnswers>) => read(file!, { ...answers, ...part })
  const open = async (input: HTMLInputElement) => {
    const chosen = input.files?.[0]
    if (!chosen) return
    const bytes = await base64(chosen)
    // The same name chosen again is the corrected file.
    input.value = ''
    run.reset()
    // What was said of columns and words holds for the corrected file; what was said of its lines does not.
    const again = file?.name === chosen.name
    read({ name: chosen.name, bytes, sheet: null }, again ? { ...nothingSaid, words: answers.words } : nothingSaid)
  }
  const begin = () => {
    const leftOut = preview!.items.filter(({ fate }) => fate === 'leftOut')
    run.mutate(
      {
        id: newId(),
        fileName: file!.name,
        file: file!.bytes,
        sheet: file!.sheet,
        answers: { ...answers, columns: preview!.columns },
        heard: (progress) => setDone({ ...progress, leftOut }),
      },
      {
        onSuccess: (last) => {
          if (!last.kept) return
          look.reset()
          setFile(undefined)
        },
      },
    )
  }
  const changes = preview ? preview.added + preview.changed : 0
  return (
    <div className="grid flex-1 content-start gap-5 border-t border-line px-5 py-4">
      <div className="flex flex-wrap items-end gap-4">
        <label className="grid gap-1 font-semibold">
          A roster from a spreadsheet (XLSX, ODS, CSV)
          <input
            type="file"
            accept=".xlsx,.xlsm,.ods,.csv,.txt,.tsv,text/csv,text/plain"
            className="field font-normal"
            onChange={(event) => void open(event.target)}
          />
        </label>
        <p className="max-w-xl text-soft">
          Our column names or yours; what you explain once is known the next time. Nothing is kept until you have seen
          what would change, and all of it can be taken back. Limits do not travel: they are private.
        </p>
      </div>
      {look.isError && <Refusal error={look.error} />}
      {preview && file && (
        <>
          <ImportColumns
            file={file.name}
            preview={preview}
            say={say}
            choose={(sheet) => read({ ...file, sheet }, nothingSaid)}
          />
          <ImportQuestions preview={preview} answers={answers} say={say} />
          <ImportLines preview={preview} answers={answers} say={say}>
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
          </ImportLines>
        </>
      )}
      {run.isError && <Refusal error={run.error} />}
      {done && !run.isPending && <Outcome done={done} />}
      <EarlierImports />
    </div>
  )
}

function Outcome({ done }: { done: Done }) {
  return (
    <div role="status" className={`border-l-4 pl-3 ${done.kept ? 'border-pine' : 'border-lacquer'}`}>
      <p>
        {done.kept ? `${people(done.done)} imported.` : `Nothing was imported. ${done.problem ?? ''}`}{' '}
        {done.kept && (
          <Link to={`/people?view=roster${done.withoutClass > 0 ? '&who=waiting' : ''}`} className="quiet-link">
            {done.withoutClass > 0 ? `See the ${done.withoutClass} without a class` : 'To the roster'}
          </Link>
        )}
      </p>
      {done.kept && done.leftOut.length > 0 && (
        <div className="mt-2">
          <p className="font-semibold">Left out, to be put right by hand:</p>
          <ul>
            {done.leftOut.map((item) => (
              <li key={item.line}>
                Line {item.line}: {item.name || 'no name'}. {item.changes.join(' ')}
              </li>
            ))}
          </ul>
          <button type="button" className="button mt-2" onClick={() => window.print()}>
            Print
          </button>
        </div>
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
