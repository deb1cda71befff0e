import { Component, type ReactNode } from 'react';
import { Button } from '@/ui/plain/Button';

/** Where a part of the page could not be fetched, that is said, with the way to try again. */
export class Fetched extends Component<{ children: ReactNode }, { failed: boolean }> {
  override state = { failed: false };

  static getDerivedStateFromError() {
    return { failed: true };
  }

  override render() {
    if (!this.state.failed) return this.props.children;
    return (
      <section>
        <h1>Part of this page couldn’t be loaded</h1>
        <p role="alert">
          Check your connection, then load the page again. What you typed is saved on this device.
        </p>
        <Button variant="filled" size="md" onClick={() => window.location.reload()}>
          Load again
        </Button>
      </section>
    );
  }
}
