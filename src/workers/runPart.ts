/**
 * Begins the part of a bundle of workers that has the worker's name. What is said to it meanwhile waits until it listens.
 * Parts share their code in one bundle, and none is loaded but the one that runs.
 */
export async function runPart<Name extends string>(
  parts: Record<Name, () => Promise<unknown>>,
): Promise<void> {
  const early: MessageEvent[] = [];
  const hold = (event: MessageEvent) => void early.push(event);
  addEventListener('message', hold);
  try {
    await parts[self.name as Name]();
  } catch (error) {
    // As a script that does not load: the page hears of it as an error of its worker.
    reportError(error);
    return;
  }
  removeEventListener('message', hold);
  for (const { data, ports } of early)
    dispatchEvent(new MessageEvent('message', { data, ports: [...ports] }));
}
