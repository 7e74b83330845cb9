/** A log format's step to the next: of an edit, and of a project, both as plain data. */
export interface LogStep {
  edit(older: unknown): unknown
  project(older: unknown): unknown
}
