import { useEffect } from 'react';
import { takeInHand } from './kept';

/** As long as this is shown, a new version waits: something is being written, marked or sat. */
export const useInHand = (): void => useEffect(takeInHand, []);
