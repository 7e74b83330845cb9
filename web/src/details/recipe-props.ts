import type { Move } from '@geotome/core/moves'

export interface RecipeProps {
  recipe: Move[]
  /** makes a change, and says whether it was made */ change: (label: string, next: Change) => boolean
  /** tries one while typing; null takes it back */ attempt: (next: Change | null) => void
}

export type Change = (recipe: Move[]) => Move[]
