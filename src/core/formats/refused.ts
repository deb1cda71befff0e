/** Why a package is not read at all. */
export type Refusal =
  | 'notZip'
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
  | 'nothingIn';

/** Thrown when a package is refused: nothing of it is taken. */
export class Refused extends Error {
  constructor(
    readonly why: Refusal,
    /** The file of the package, and where in it. */
    readonly place: string,
    readonly detail = '',
  ) {
    super(`${why} ${place} ${detail}`.trim());
  }
}
