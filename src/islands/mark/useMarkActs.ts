import { commentActs } from './commentActs';
import { forwardActs } from './forwardActs';
import { markBasis, type MarkActsProps } from './markBasis';
import { pointActs } from './pointActs';
import { useActed } from './useActed';

export type MarkActs = ReturnType<typeof useMarkActs>;

/** What is done to answers: points, lines, words, and putting aside. What lies in a pile marked as one has it all together. */
export function useMarkActs(props: MarkActsProps) {
  const acted = useActed(props.entries, props.drawnMarks);
  const basis = markBasis(props, acted);
  const { together, countOf } = basis;
  return {
    ...{ acted: acted.answers, asActed: acted.asActed, together, countOf },
    ...{ ...pointActs(basis), ...commentActs(basis), ...forwardActs(basis) },
  };
}
