import type { Schema } from '../api/client'
import { Option, Select } from '../ui/Select'
import type { RosterAnswers, RosterColumn, RosterPreview } from './data'

type Field = Exclude<Schema['RosterField'], 'knows' | null>

const fields: Record<Field, string> = {
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
  handsOn: 'agrees to touch',
  partnerWork: 'agrees to partner work',
  recording: 'agrees to recording',
  messages: 'agrees to messages',
}

const passedOver: RosterColumn = { field: null, formId: null, sectionId: null }

const meaningOf = ({ field, formId, sectionId }: RosterColumn) => [field, formId, sectionId].filter(Boolean).join(' ')

const columnOf = (meaning: string): RosterColumn => {
  const [field, formId = null, sectionId = null] = meaning.split(' ')
  return field ? { field: field as RosterColumn['field'], formId, sectionId } : passedOver
}

interface ImportColumnsProps {
  file: string
  preview: RosterPreview
  say: (part: Partial<RosterAnswers>) => void
  /** Another sheet of the same file. */
  choose: (sheet: string) => void
}

/** Which sheet, where its headers stand, and what each column means. */
export function ImportColumns({ file, preview, say, choose }: ImportColumnsProps) {
  const map = (at: number, meaning: string) =>
    say({
      columns: preview.columns.map((one, place) =>
        place === at ? columnOf(meaning) : meaning && meaningOf(one) === meaning ? passedOver : one,
      ),
    })
  return (
    <section aria-label="Columns">
      <div className="flex flex-wrap items-end gap-4">
        <h2 className="text-lg">What each column of {file} means</h2>
        {preview.sheets.length > 1 && (
          <Select label="Sheet" value={preview.sheet ?? ''} onChange={choose}>
            {preview.sheets.map((sheet) => (
              <Option key={sheet} value={sheet}>
                {sheet}
              </Option>
            ))}
          </Select>
        )}
        {preview.tops.length > 1 && (
          <Select
            label="Where the headers stand"
            value={String(preview.headerLine)}
            onChange={(line) => say({ headerLine: Number(line), columns: null })}
          >
            {preview.tops.map(({ line, cells }) => (
              <Option key={line} value={String(line)}>
                headers on line {line}: {cells.filter(Boolean).join(' · ').slice(0, 50)}
              </Option>
            ))}
          </Select>
        )}
      </div>
      <div className="mt-2 overflow-x-auto border border-line bg-paper">
        <table className="border-collapse">
          <thead>
            <tr>
              {preview.headers.map((header, at) => (
                <th key={at} scope="col" className="min-w-36 border-b border-line px-3 py-2 text-left align-top">
                  <span className="block pb-1">{header || <span className="text-soft">no header</span>}</span>
                  <Select
                    className={`w-full font-normal ${preview.columns[at]?.field ? '' : 'text-soft'}`}
                    label={`Meaning of ${header}`}
                    value={meaningOf(preview.columns[at] ?? passedOver)}
                    onChange={(chosen) => map(at, chosen)}
                  >
                    <Option value="">pass it over</Option>
                    {Object.entries(fields).map(([value, word]) => (
                      <Option key={value} value={value}>
                        {word}
                      </Option>
                    ))}
                    {preview.forms.flatMap((form) => [
                      <Option key={form.id} value={`knows ${form.id}`}>
                        knows {form.name}
                      </Option>,
                      ...form.sections.map((section) => (
                        <Option key={section.id} value={`knows ${form.id} ${section.id}`}>
                          knows {form.name}, {section.name}
                        </Option>
                      )),
                    ])}
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
  )
}
