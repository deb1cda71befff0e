import { z } from 'zod';
import { Text } from '../basics/common';

/** A response in the student's own words. */
export const TextResponse = z.object({ text: Text });
export type TextResponse = z.infer<typeof TextResponse>;
