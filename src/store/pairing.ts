import { desk } from './tables';

/** How this desk is paired with a server; undefined: it is not. */
export const pairing = () => desk.pairing.get('now');
