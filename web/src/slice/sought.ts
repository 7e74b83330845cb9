import type { BriefLine } from '@geotome/core/project'

/** The line of the brief that a target is sought for when the sheet opens; read once. */
let wanted: BriefLine | null = null

export const seekFor = (line: BriefLine): void => {
  wanted = line
}

export function takeSought(): BriefLine | null {
  const line = wanted
  wanted = null
  return line
}
