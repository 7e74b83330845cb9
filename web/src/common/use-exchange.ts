import type { ExchangeList } from '@geotome/core/exchange'
import { useEffect, useState } from 'react'
import { api } from '../app/api'

let known: ExchangeList | null = null

/** What the server writes and reads; null until it has said so. */
export function useExchange(): ExchangeList | null {
  const [list, setList] = useState(known)
  useEffect(() => {
    if (!known)
      api.exchange().then(
        (told) => setList((known = told)),
        () => undefined,
      )
  }, [])
  return list
}

/** For a field that chooses a file: ".ifc,.obj". */
export const accepts = (extensions: readonly string[]): string => extensions.map((e) => `.${e}`).join()
