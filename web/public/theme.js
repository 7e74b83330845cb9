// Before anything is drawn: the theme that was chosen, or the system's.
try {
  document.documentElement.dataset.theme =
    localStorage.getItem('geotome-theme') ?? (matchMedia('(prefers-color-scheme: dark)').matches ? 'ink' : 'paper')
} catch {
  /* the light one */
}
