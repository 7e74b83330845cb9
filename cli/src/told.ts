import { vi } from 'vitest'
import { main } from './main'

/** Runs a command line as a person would, and gives what it said. For tests. */
export async function told(args: string[]): Promise<{ code: number; out: string; err: string }> {
  let [out, err] = ['', '']
  vi.spyOn(process.stdout, 'write').mockImplementation((text) => {
    out += String(text)
    return true
  })
  vi.spyOn(process.stderr, 'write').mockImplementation((text) => {
    err += String(text)
    return true
  })
  const code = await main(args)
  vi.restoreAllMocks()
  return { code, out, err }
}
