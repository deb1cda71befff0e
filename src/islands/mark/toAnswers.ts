/** Puts the focus back to the answer that is being marked. */
export const toAnswers = (): void => document.querySelector<HTMLElement>('[data-row][tabindex="0"]')?.focus();
