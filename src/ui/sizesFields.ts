import { once } from 'remeda';

/** Whether the browser sizes a field by what is in it (CSS Basic User Interface Level 4, `field-sizing`). */
export const sizesFields = once(() => typeof CSS !== 'undefined' && CSS.supports('field-sizing', 'content'));
