import type { Answers, Ask } from '../survey/kind'

/** What a body is in its file: a form, something that stands around, a part of a building, a space in it, the ground, or none of these. */
export type BodyClass = 'forms' | 'context' | 'parts' | 'spaces' | 'ground' | 'others'

/** A body as a file has it: metres, z up; three corner numbers per triangle. */
export interface ReadMesh {
  name: string
  /** its class in the file; left out where the file names none */
  of?: BodyClass
  /** its file says curves, for which the reader has put facets with their corners on the curve */
  isFaceted?: boolean
  corners: number[]
  triangles: number[]
}

/** What a file gives: its bodies, what was left out, and what it does not say. */
export interface ReadFile {
  meshes: ReadMesh[]
  remarks: string[]
  asks: Ask[]
}

/** An open format that bodies are read from. `wasm` says where a reader's binary is where its package cannot find it itself. Errors: 'file'. */
export interface Reader {
  id: string
  label: string
  extensions: string[]
  read(bytes: Uint8Array, wasm: string | null, answers: Answers): Promise<ReadFile>
}
