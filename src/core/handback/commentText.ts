import { openableLink } from '../basics/link';

/** What a comment may name, filled in for each student. */
export interface CommentFields {
  firstName: string;
  /** The number of the question; empty in a comment on the whole attempt. */
  question: string;
}

/** The fields as they are written in a comment. */
export const commentFieldNames = ['[first name]', '[question]'] as const;

/** A comment as a student reads it. Fields are written in brackets: "[first name], look at question [question] again." */
export const commentText = (comment: string, { firstName, question }: CommentFields): string =>
  comment.replace(/\[first name\]/gi, firstName).replace(/\[question\]/gi, question);

/** A piece of a comment: words, or an address that can be opened. */
export interface CommentPart {
  text: string;
  href: string | null;
}

/** A comment in pieces, with the addresses in it apart; the sign that ends a sentence is none of an address. */
export function commentParts(comment: string): CommentPart[] {
  return comment
    .split(/(https?:\/\/[^\s<>"]*[^\s<>".,;:!?)\]])/)
    .filter((text) => text !== '')
    .map((text) => ({ text, href: /^https?:\/\//.test(text) ? openableLink(text) : null }));
}
