/** What a teacher's computer is called until it gets a name: by what its browser says of it. */
export function guessedComputerName(userAgent: string): string {
  const [, what] = kinds.find(([sign]) => sign.test(userAgent)) ?? [];
  return what ?? 'Computer';
}

// The signs that browsers give (MDN, "User-Agent header"); some tablets say that they are computers.
const kinds: readonly (readonly [RegExp, string])[] = [
  [/iPad|Tablet|Android(?!.*Mobile)/, 'Tablet'],
  [/iPhone|Mobile/, 'Phone'],
  [/Windows/, 'Windows computer'],
  [/Mac OS X|Macintosh/, 'Mac'],
  [/CrOS/, 'Chromebook'],
  [/Linux/, 'Linux computer'],
];
