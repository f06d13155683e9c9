'use client';

import { Component, type ReactNode } from 'react';

/** One part of a page: where it cannot be drawn, it says so in its place and the rest of the page goes on. */
export class PartBoundary extends Component<
  { readonly name: string; readonly children: ReactNode },
  { failed: boolean }
> {
  override state = { failed: false };

  static getDerivedStateFromError() {
    return { failed: true };
  }

  override render() {
    if (!this.state.failed) return this.props.children;
    return (
      <div role="alert" className="part-failed">
        {this.props.name} cannot be shown. Everything else works; what was entered is kept.{' '}
        <button type="button" onClick={() => this.setState({ failed: false })}>
          Try again
        </button>
      </div>
    );
  }
}
