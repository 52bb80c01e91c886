/** A refusal: what is wrong, at which field, and what changed in the meantime. */
export class Problem extends Error {
  readonly status: number
  readonly fields: Record<string, string[]>
  readonly changes: string[]
  /** The last word of its stable type: "stale", "same-name". */
  readonly kind: string

  constructor(status: number, title: string, fields: Record<string, string[]>, changes: string[], kind = '') {
    super(title)
    this.kind = kind
    this.status = status
    this.fields = fields
    this.changes = changes
  }

  /** What is said about one field, or undefined. */
  at(field: string): string | undefined {
    return this.fields[field]?.join(' ')
  }

  /** What is said about the first field whose name is like this, or undefined. */
  like(pattern: RegExp): string | undefined {
    return this.at(Object.keys(this.fields).find((field) => pattern.test(field)) ?? '')
  }

  /** What is said about fields that no place on the screen stands for. */
  others(shown: string[]): string[] {
    return Object.entries(this.fields)
      .filter(([field]) => !shown.includes(field))
      .flatMap(([, messages]) => messages)
  }
}

const usual: Record<number, string> = {
  0: 'The server does not answer. Nothing was saved; try again in a moment.',
  401: 'Sign in first.',
  403: 'This is not yours to see or change.',
  404: 'This is not here.',
  429: 'Too many attempts. Wait a minute, then try again.',
}

export function readProblem(status: number, body: unknown): Problem {
  const details = (typeof body === 'object' && body !== null ? body : {}) as {
    title?: string
    type?: string
    errors?: Record<string, string[]>
    changes?: string[]
  }
  const ours = details.type?.startsWith('urn:zeitplan:') ? details.title : undefined
  return new Problem(
    status,
    ours ?? usual[status] ?? `That did not work (${status}). Nothing was saved.`,
    details.errors ?? {},
    details.changes ?? [],
    details.type?.split(':').at(-1),
  )
}
