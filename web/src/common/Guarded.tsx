import { Component, type ReactNode } from 'react'

interface Props {
  /** what the part of the page is called: "The details" */
  what: string
  /** the part is drawn again when this changes: after an edit, an undo, at another desk */
  retry: unknown
  children: ReactNode
}

/** Draws a part of the page; where it fails, a sentence stands in its place, and all else stays in reach. */
export class Guarded extends Component<Props, { failed: boolean; retry: unknown }> {
  override state = { failed: false, retry: this.props.retry }

  static getDerivedStateFromError = () => ({ failed: true })
  static getDerivedStateFromProps(props: Props, state: { failed: boolean; retry: unknown }) {
    return Object.is(props.retry, state.retry) ? null : { failed: false, retry: props.retry }
  }

  override render() {
    if (!this.state.failed) return this.props.children
    const { what } = this.props
    return (
      <div role="alert" className="m-3 max-w-60 self-start text-[13px]">
        <p className="mb-2">{what} cannot be shown. Nothing is lost: undo the last change, or show it again.</p>
        <button type="button" className="btn btn-sm" onClick={() => this.setState({ failed: false })}>
          Show again
        </button>
      </div>
    )
  }
}
