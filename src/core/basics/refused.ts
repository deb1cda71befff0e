/** Why a file is not read at all. */
export type Refusal =
  | 'notZip'
  | 'damagedFile'
  | 'locked'
  | 'tooManyCells'
  | 'notWorkbook'
  | 'noSheet'
  | 'notSheet'
  | 'openQuote'
  | 'notPackage'
  | 'tooLarge'
  | 'tooManyFiles'
  | 'badPath'
  | 'notXml'
  | 'tooDeep'
  | 'entities'
  | 'script'
  | 'missingFile'
  | 'missingColumn'
  | 'nothingIn'
  | 'notPages'
  | 'pictureTooLarge'
  | 'tooManyPages';

/** Thrown when a file is refused: nothing of it is taken. */
export class Refused extends Error {
  constructor(
    readonly why: Refusal,
    /** Where in the file: the file of a package, the line of a text. */
    readonly place: string,
    readonly detail = '',
  ) {
    super(`${why} ${place} ${detail}`.trim());
  }
}

/** What was read, or why nothing was: as data, so that it comes through from a worker. */
export type OrRefused<T> = { read: T } | { refused: Pick<Refused, 'why' | 'place' | 'detail'> };

export async function orRefused<T>(read: () => T | Promise<T>): Promise<OrRefused<T>> {
  try {
    return { read: await read() };
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    const { why, place, detail } = error;
    return { refused: { why, place, detail } };
  }
}
