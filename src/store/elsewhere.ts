import type { DeskElsewhere } from './elsewhereGuard';
import { desk } from './tables';

export { isElsewhere, settled, type DeskElsewhere } from './elsewhereGuard';

/** Where the desk is; undefined: it is here. */
export const deskElsewhere = (): Promise<DeskElsewhere | undefined> => desk.elsewhere.get('now');

/** From now on the desk is for reading only here. */
export const leaveDesk = (to: Omit<DeskElsewhere, 'key'>): Promise<unknown> =>
  desk.elsewhere.put({ key: 'now', ...to });

/** The desk is here again. */
export const deskIsHere = (): Promise<void> => desk.elsewhere.delete('now');
