/** The most characters of a free text: what `Text` lets in. Apart from it, for pages that check nothing themselves. */
export const mostText = 50_000;
