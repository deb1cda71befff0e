import type { Question, Response } from '.';

/** A question of a kind as the tests of all kinds take it, and a blank answer to it. What is secret in it says SECRET. */
export interface KindSample<Q extends Question> {
  question: Q;
  blank: Response;
}
