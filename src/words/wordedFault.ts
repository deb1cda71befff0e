/** An error whose message is words for whoever sits there. */
export class WordedFault extends Error {}
