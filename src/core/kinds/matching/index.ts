import { pairsKind } from '../pairs';
import { Matching, StudentMatching } from './schema';

/** Each item has its partner among the targets; there may be more targets than items. */
export const matching = pairsKind<Matching, StudentMatching>({
  kind: 'matching',
  label: 'Matching',
  schema: Matching,
  studentSchema: StudentMatching,
  begins: [4, 4],
  shuffleTargets: true,
});
