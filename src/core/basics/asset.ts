import { z } from 'zod';
import { Id, Line } from './common';
import { FileRef } from './file';

/** A picture or file that belongs to the desk. Its id is drawn from its bytes, so that it never changes. */
export const Asset = FileRef.extend({ bytes: z.instanceof(Uint8Array) });
export type Asset = z.infer<typeof Asset>;

/** An asset in a file of text: its bytes are Base64 (RFC 4648). */
export const PackedAsset = z.object({ id: Id, name: Line, mediaType: Line, base64: z.base64() });
export type PackedAsset = z.infer<typeof PackedAsset>;

/** A setting of the desk. */
export const Setting = z.object({ key: Line.min(1), value: z.json() });
export type Setting = z.infer<typeof Setting>;
