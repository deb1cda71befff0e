/** Nothing that Gribbet keeps is nested deeper. */
const mostDepth = 200;

/** Whether a value is nested too deeply to be checked; told without recursion, which a hostile file could exhaust. */
export function tooDeep(value: unknown): boolean {
  const waiting: [unknown, number][] = [[value, 1]];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const [each, depth] = next;
    if (depth > mostDepth) return true;
    if (each !== null && typeof each === 'object')
      for (const child of Object.values(each))
        if (child !== null && typeof child === 'object') waiting.push([child, depth + 1]);
  }
  return false;
}
