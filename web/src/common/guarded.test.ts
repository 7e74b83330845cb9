import { describe, expect, it } from 'vitest'
import { Guarded } from './Guarded'

describe('a part of the page that fails', () => {
  const props = (retry: string) => ({ what: 'The details', retry, children: 'fields' })
  it('is replaced by a sentence, and is drawn again after the next edit', () => {
    const part = new Guarded(props('1'))
    expect(part.render()).toBe('fields')
    part.state = { ...part.state, ...Guarded.getDerivedStateFromError() }
    expect(JSON.stringify(part.render())).toContain('cannot be shown. Nothing is lost')
    // The same edit keeps the sentence; the next one tries the part again.
    expect(Guarded.getDerivedStateFromProps(props('1'), part.state)).toBeNull()
    part.state = { ...part.state, ...Guarded.getDerivedStateFromProps(props('2'), part.state) }
    expect(part.render()).toBe('fields')
  })
})
