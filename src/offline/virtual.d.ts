declare module 'virtual:offline' {
  /** What the build was made of, in short: another build has another. */
  export const build: string;
  /** The routes of all pages, and the address of each page of the guide. */
  export const routes: string[];
}
