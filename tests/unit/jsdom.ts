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
  for (const [side, size] of [
    ['Height', 400],
    ['Width', 800],
  ] as const)
    for (const box of ['offset', 'client'])
      Object.defineProperty(HTMLElement.prototype, `${box}${side}`, { configurable: true, value: size });
  Object.assign(document, { fonts: new EventTarget() });
  HTMLElement.prototype.scrollIntoView = () => undefined;
  // Only where there is a page: half of the files have none.
  const { cleanup, configure } = await import('@testing-library/react');
  // What is waited for comes when it comes: on a busy machine a second is nothing.
  configure({ asyncUtilTimeout: 20_000 });
  afterEach(cleanup);
}
