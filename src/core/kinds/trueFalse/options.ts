/** The two answers there are. Their ids are what a response holds. */
export const trueFalseOptions = [
  { id: 'true', text: 'True' },
  { id: 'false', text: 'False' },
] as const;
