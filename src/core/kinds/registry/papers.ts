// Made from kindList.ts by `npm run kinds`: change the list, not this.
import { categoriesPaper } from '../categories/paper';
import { filePaper } from '../file/paper';
import { gapsPaper } from '../gaps/paper';
import { matchingPaper } from '../matching/paper';
import { numberPaper } from '../number/paper';
import { oneChoicePaper } from '../oneChoice/paper';
import { openTextPaper } from '../openText/paper';
import { orderingPaper } from '../ordering/paper';
import { severalChoicesPaper } from '../severalChoices/paper';
import { shortTextPaper } from '../shortText/paper';
import { trueFalsePaper } from '../trueFalse/paper';
import { workingPaper } from '../working/paper';

export const papers = {
  oneChoice: oneChoicePaper,
  severalChoices: severalChoicesPaper,
  trueFalse: trueFalsePaper,
  shortText: shortTextPaper,
  number: numberPaper,
  gaps: gapsPaper,
  matching: matchingPaper,
  ordering: orderingPaper,
  categories: categoriesPaper,
  openText: openTextPaper,
  working: workingPaper,
  file: filePaper,
};
