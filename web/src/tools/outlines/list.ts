import { hole } from './hole'
import type { OutlineUse } from './kind'
import { mass } from './mass'
import { neighbour } from './neighbour'
import { patch } from './patch'
import { site } from './site'
import { profile, section } from './upright'
import { platePartOut, platePartUse, plateSplit } from './plate-part'
import { split } from './split'
import { wing } from './wing'

/** What a drawn outline can become. */
export const OUTLINE_USES: readonly OutlineUse[] = [
  mass,
  hole,
  patch,
  split,
  section,
  profile,
  site,
  neighbour,
  wing,
  platePartOut,
  platePartUse,
  plateSplit,
]

export const outlineUse = (name: string | undefined): OutlineUse => OUTLINE_USES.find((u) => u.name === name) ?? mass
