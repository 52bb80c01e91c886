import type { UseQueryResult } from '@tanstack/react-query'
import { Failure, Waiting } from '../ui/states'

/** What stands where something will be as soon as it is here, or why it is not. Once it is here, a failed look at it again takes nothing away. */
export function Opening({ of, what }: { of: readonly UseQueryResult<unknown>[]; what: string }) {
  const failed = of.find((query) => query.isError && query.data === undefined)
  return failed ? (
    <Failure error={failed.error!} retry={() => of.forEach((query) => query.isError && void query.refetch())} />
  ) : (
    <Waiting what={what} />
  )
}
