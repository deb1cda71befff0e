// Made from kindList.ts by `npm run kinds`: change the list, not this.
import { categoriesQti } from '../categories/qti';
import { fileQti } from '../file/qti';
import { gapsQti } from '../gaps/qti';
import { matchingQti } from '../matching/qti';
import { numberQti } from '../number/qti';
import { oneChoiceQti } from '../oneChoice/qti';
import { openTextQti } from '../openText/qti';
import { orderingQti } from '../ordering/qti';
import { severalChoicesQti } from '../severalChoices/qti';
import { shortTextQti } from '../shortText/qti';
import { trueFalseQti } from '../trueFalse/qti';
import { workingQti } from '../working/qti';

export const qtiForms = {
  oneChoice: oneChoiceQti,
  severalChoices: severalChoicesQti,
  trueFalse: trueFalseQti,
  shortText: shortTextQti,
  number: numberQti,
  gaps: gapsQti,
  matching: matchingQti,
  ordering: orderingQti,
  categories: categoriesQti,
  openText: openTextQti,
  working: workingQti,
  file: fileQti,
};
