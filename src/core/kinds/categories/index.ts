import { pairsKind } from '../pairs';
import { Categories, StudentCategories } from './schema';

/** Items are sorted into a few categories, any number into each. */
export const categories = pairsKind<Categories, StudentCategories>({
  kind: 'categories',
  label: 'Sorting into categories',
  schema: Categories,
  studentSchema: StudentCategories,
  begins: [6, 2],
  shuffleTargets: false,
});
