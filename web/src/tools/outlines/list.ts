import { hole } from './hole'
import type { OutlineUse } from './kind'
import { mass } from './mass'
import { neighbour } from './neighbour'
import { site } from './site'
import { wing } from './wing'

/** What a drawn outline can become. */
export const OUTLINE_USES: readonly OutlineUse[] = [mass, hole, site, neighbour, wing]

export const outlineUse = (name: string | undefined): OutlineUse => OUTLINE_USES.find((u) => u.name === name) ?? mass
