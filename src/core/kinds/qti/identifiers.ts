/**
 * Identifiers of QTI begin with a letter or a low line; ids here may begin with anything. The low line in front is
 * taken off when a package that was written here is read again.
 */
export const identifierOf = (id: string) => `_${id.replace(/[^A-Za-z0-9_.-]/g, '.')}`;

/** An id for what an identifier names. */
export function idFor(identifier: string): string {
  const plain = identifier.startsWith('_') && identifier.length > 1 ? identifier.slice(1) : identifier;
  return plain.slice(0, 64) || 'unnamed';
}
