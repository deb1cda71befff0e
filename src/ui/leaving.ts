/**
 * Calls what writes what is still being typed, as early as it is known that the page is left: by its address, a key or the tab being
 * closed. Also where it turns out to stay.
 *
 * @returns ends it
 */
export function onLeaving(write: () => void): () => void {
  // Before those are asked who hold a page back that is still writing.
  window.addEventListener('beforeunload', write, { capture: true });
  // Phones leave pages without the first one.
  window.addEventListener('pagehide', write);
  return () => {
    window.removeEventListener('beforeunload', write, { capture: true });
    window.removeEventListener('pagehide', write);
  };
}
