/** Why the server did not do as asked: a word of its own, or that it could not be reached. */
export class ServerFault extends Error {
  constructor(
    readonly why: string,
    readonly place = '',
    /** After how many seconds it can be asked again, where the server said so. */
    readonly waitS: number | null = null,
  ) {
    super(why);
  }
}
