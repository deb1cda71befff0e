/** The list with what was at `from` at `to`. */
export function moved<T>(list: readonly T[], from: number, to: number): T[] {
  const item = list[from];
  if (item === undefined || to < 0 || to >= list.length) return [...list];
  const rest = list.filter((_, index) => index !== from);
  rest.splice(to, 0, item);
  return rest;
}
