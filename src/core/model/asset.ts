import { z } from 'zod';
import { Id, Line } from './common';

/** A picture or file that belongs to the desk. In a backup its bytes are Base64 (RFC 4648). */
export const Asset = z.object({ id: Id, name: Line, mediaType: Line, base64: z.base64() });
export type Asset = z.infer<typeof Asset>;

/** A setting of the desk. */
export const Setting = z.object({ key: Line.min(1), value: z.json() });
export type Setting = z.infer<typeof Setting>;
