// Made from kindList.ts by `npm run kinds`: change the list, not this.
import { categoriesFilling } from '../categories/filling';
import { fileFilling } from '../file/filling';
import { gapsFilling } from '../gaps/filling';
import { matchingFilling } from '../matching/filling';
import { numberFilling } from '../number/filling';
import { oneChoiceFilling } from '../oneChoice/filling';
import { openTextFilling } from '../openText/filling';
import { orderingFilling } from '../ordering/filling';
import { severalChoicesFilling } from '../severalChoices/filling';
import { shortTextFilling } from '../shortText/filling';
import { trueFalseFilling } from '../trueFalse/filling';
import { workingFilling } from '../working/filling';

export const fillings = {
  oneChoice: oneChoiceFilling,
  severalChoices: severalChoicesFilling,
  trueFalse: trueFalseFilling,
  shortText: shortTextFilling,
  number: numberFilling,
  gaps: gapsFilling,
  matching: matchingFilling,
  ordering: orderingFilling,
  categories: categoriesFilling,
  openText: openTextFilling,
  working: workingFilling,
  file: fileFilling,
};
