/** Ends a `switch` over a union: a member added later does not compile until it is handled. */
export function assertNever(value: never): never {
  throw new Error(`Not handled: ${JSON.stringify(value)}`);
}
