import { cleanup } from '@testing-library/react';
import { afterEach } from 'vitest';

/** What jsdom lacks and the interface asks for. Layout is not computed there: every box has one size. */
if (typeof window !== 'undefined') {
  window.matchMedia = (media: string) =>
    ({
      matches: false,
      media,
      onchange: null,
      addEventListener: () => undefined,
      removeEventListener: () => undefined,
      addListener: () => undefined,
      removeListener: () => undefined,
      dispatchEvent: () => false,
    }) satisfies MediaQueryList;
  window.ResizeObserver = class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
  Object.defineProperty(HTMLElement.prototype, 'offsetHeight', { configurable: true, value: 400 });
  Object.defineProperty(HTMLElement.prototype, 'offsetWidth', { configurable: true, value: 800 });
  Object.assign(document, { fonts: new EventTarget() });
  HTMLElement.prototype.scrollIntoView = () => undefined;
  afterEach(cleanup);
}
