import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { Progress } from '../ui/Progress'
import { Refusal } from '../ui/states'
import { number } from '../ui/writing'
import { readArchive, writeArchive } from './data'

/** The school out of here and back: one open file, for whoever keeps a copy or moves elsewhere. */
export function SafeView() {
  return (
    <div className="grid max-w-3xl gap-8">
      <Write />
      <Read />
      <section>
        <h2 className="text-lg">Backups</h2>
        <p className="mt-1 text-soft">
          Whoever looks after the machine runs <code>./zeitplan backup</code> every night; it is encrypted with a
          passphrase, read back before it counts, and restored with <code>./zeitplan restore</code>. Whoever was erased
          stays erased. The archive here is not a backup: it has no passwords, and is written when somebody thinks of
          it.
        </p>
      </section>
    </div>
  )
}

/** Something under way that can be left off. */
function useLeavingOff() {
  const under = useRef<AbortController>(undefined)
  const [wasLeft, setWasLeft] = useState(false)
  return {
    wasLeft,
    begin: () => {
      under.current = new AbortController()
      setWasLeft(false)
      return under.current.signal
    },
    leaveOff: () => {
      under.current?.abort()
      setWasLeft(true)
    },
  }
}

const isLeftOff = (error: Error | null) => error?.name === 'AbortError'

const megabytes = (bytes: number) => `${number(Math.ceil(bytes / 104857.6) / 10)} MB`

function Write() {
  const { wasLeft, begin, leaveOff } = useLeavingOff()
  const [so, setSo] = useState<{ bytes: number; of: number }>()
  const write = useMutation(writeArchive)
  const go = () => {
    setSo(undefined)
    write.mutate(
      { heard: (bytes, of) => setSo({ bytes, of }), signal: begin() },
      {
        onSuccess: ({ name, content }) => {
          const link = document.createElement('a')
          link.href = URL.createObjectURL(content)
          link.download = name
          link.click()
          setTimeout(() => URL.revokeObjectURL(link.href), 60_000)
        },
      },
    )
  }
  return (
    <section className="grid justify-items-start gap-2">
      <h2 className="text-lg">The archive</h2>
      <p className="text-soft">
        Everything in one open file: forms, people, classes, plans and everything that was marked, as tables any
        spreadsheet reads, with a README. Limits are in it: keep it as you keep the register.
      </p>
      {write.isPending ? (
        <p role="status" className="flex items-center gap-3">
          {so ? <Progress label="Writing the archive" done={so.bytes} of={so.of} /> : 'Writing…'}
          {so && `${megabytes(so.bytes)} of ${megabytes(so.of)}`}
          <button type="button" className="button" onClick={leaveOff}>
            Leave off
          </button>
        </p>
      ) : (
        <button type="button" className="button" onClick={go}>
          Write the archive
        </button>
      )}
      {write.isSuccess && (
        <p role="status" className="text-pine">
          {write.data.name} is written, {megabytes(write.data.content.size)}.
        </p>
      )}
      {write.error && !isLeftOff(write.error) && <Refusal error={write.error} />}
      {wasLeft && isLeftOff(write.error) && <p role="status">Left off; nothing was written.</p>}
    </section>
  )
}

function Read() {
  const queries = useQueryClient()
  const { wasLeft, begin, leaveOff } = useLeavingOff()
  const [so, setSo] = useState<{ done: number; of: number }>()
  const read = useMutation(readArchive)
  const open = (input: HTMLInputElement) => {
    const file = input.files?.[0]
    if (!file) return
    input.value = ''
    setSo(undefined)
    read.mutate({ file, heard: setSo, signal: begin() })
  }
  return (
    <section className="grid justify-items-start gap-2">
      <h2 className="text-lg">Read an archive</h2>
      <p className="text-soft">
        Into a school that has nothing yet, all of it or nothing. You stay its head and sign in anew; everybody else
        gets a letter from you to choose a new password.
      </p>
      <label className="grid gap-1 font-semibold">
        An archive of Zeitplan (ZIP)
        <input
          type="file"
          accept=".zip,application/zip"
          className="field font-normal"
          disabled={read.isPending}
          onChange={(event) => open(event.target)}
        />
      </label>
      {read.isPending && (
        <p role="status" className="flex items-center gap-3">
          {so ? <Progress label="Reading the archive" done={so.done} of={so.of} /> : 'Sending and looking through it…'}
          {so && `table ${so.done} of ${so.of}`}
          <button type="button" className="button" onClick={leaveOff}>
            Leave off
          </button>
        </p>
      )}
      {read.data?.kept && (
        <p role="status" className="flex flex-wrap items-center gap-3 text-pine">
          Everything is in.
          <button
            type="button"
            className="button button-primary"
            onClick={() => void queries.invalidateQueries({ queryKey: ['session'] })}
          >
            Sign in anew
          </button>
        </p>
      )}
      {read.data && !read.data.kept && (
        <p role="alert" className="border-l-4 border-lacquer pl-3">
          Nothing was read. {read.data.problem}
        </p>
      )}
      {read.error && !isLeftOff(read.error) && <Refusal error={read.error} />}
      {wasLeft && isLeftOff(read.error) && <p role="status">Left off; nothing was kept.</p>}
    </section>
  )
}
