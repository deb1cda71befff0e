import { z } from 'zod';
import { Id, Instant } from '../basics/common';
import { ComputerName, DeskId } from './deskHold';

/** Copies of a desk on their way to and from the server, and as they lie there. */

/** The name of a sealed part: 32 bytes in the letters of Base64url. */
export const PartId = z.string().regex(/^[\w-]{43}$/);

/** A copy on a server: which of the sealed parts lying there make it up. */
export const DeskCopy = z.object({
  deskId: DeskId,
  at: Instant,
  /** 1: a zip cut into parts; 2: an index of its pieces, and the pieces. */
  version: z.union([z.literal(1), z.literal(2)]),
  /** Which computer made it. */
  computer: Id.optional(),
  /** One of two desks that were both changed, as it was before one of them was taken: so long it is kept. */
  kept: z.object({ computer: ComputerName, until: Instant }).optional(),
  /** Drawn once for a desk; the key of the seal is drawn from it and the teacher's secret. */
  salt: z.base64().max(100),
  /** Copies of before hold somebody who is forgotten: they go. */
  since: Instant.optional(),
  /** The bytes of all its parts together, as they were before they were sealed. */
  size: z.number().int().min(0),
  /** The parts of the zip without its files, in order; or that of the index, and after it the pieces. */
  zip: PartId.array().max(100_000),
  /** The parts that are its files. */
  files: PartId.array().max(100_000),
});
export type DeskCopy = z.infer<typeof DeskCopy>;

/** The parts that a desk asks about, or that are lacking. */
export const LackingParts = z.object({ ids: PartId.array().max(100_000) });
/** A sealed part on its way. */
export const SealedBytes = z.object({ base64: z.base64() });
