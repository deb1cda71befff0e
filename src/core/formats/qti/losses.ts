import type { LossCode } from '../../kinds/qti/ItemForm';

/** Something of a package or paper that could not be carried, and where it stood. */
export interface Loss {
  /** "Question 3", or the title or name of an item. */
  place: string;
  code: LossCode;
  detail: string;
}
