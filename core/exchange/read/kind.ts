/** A body as a file has it: metres, z up; three corner numbers per triangle. */
export interface ReadMesh { name: string; corners: number[]; triangles: number[] }

/** An open format that bodies are read from. `wasm` says where a reader's binary is where its package cannot find it itself. Errors: 'file'. */
export interface Reader { id: string; label: string; extensions: string[]; read(bytes: Uint8Array, wasm: string | null): Promise<ReadMesh[]> }
