/** Who edits: this browser, remembered, so that undo finds its own edits also after the page was closed. */
export function author(): string {
  let id = localStorage.getItem('geotome-author')
  if (!id) localStorage.setItem('geotome-author', (id = crypto.randomUUID()))
  return id
}
