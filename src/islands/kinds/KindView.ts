import type { ComponentType } from 'react';
import type { WorkMark } from '@/core/model/workMark';

/** Keeps a changed question. `field` names what is typed in, so that a run of typing is one step to undo. */
export type KeepQuestion<Q> = (question: Q, said: string, field?: string) => void;

export interface EditProps<Q> {
  question: Q;
  keep: KeepQuestion<Q>;
}

export interface SitProps<S, R> {
  question: S;
  response: R | null;
  respond: (response: R) => void;
  /** The id of the element that holds the question's text. */
  labelledBy: string;
  disabled?: boolean;
}

export interface ShowProps<S, R> {
  question: S;
  response: R | null;
  /** At a glance, among many others: nothing in it can be pressed. */
  small?: boolean;
  /** What a marker marked on the answer; only kinds whose answers are texts show it. */
  work?: readonly WorkMark[] | undefined;
}

/** A question on paper. */
export interface PrintedProps<S> {
  question: S;
  /** Whether there is to be room to write in. */
  room: boolean;
}

/** How one kind of question is sat and shown. How it is written and printed is apart: students never load that. */
export interface KindView<S, R> {
  Sit: ComponentType<SitProps<S, R>>;
  /**
   * Fetches what it takes to sit such a question, where that is not on the page from the start. Nobody starts before it
   * is here; fails where it cannot be fetched.
   */
  fetch?: () => Promise<unknown>;
  Show: ComponentType<ShowProps<S, R>>;
  /** Whether an answer is more than its words can say, so that a marker must see it. */
  drawn?: boolean;
  /** Whether an answer is one text, letter by letter as it was written, so that marks can lie over it. */
  written?: boolean;
}
