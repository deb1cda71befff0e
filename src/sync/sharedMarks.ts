import { readMarks, readShare, marksText, shareText } from '@/core/formats/packet/shareFile';
import type { MarksBack, ShareContent } from '@/core/model/share';
import { ServerFault } from '@/core/exchange/serverFault';
import { takeMarksFromServer } from '@/store/sharedMarks';
import { noteOnServer, shareToSend } from '@/store/shares';
import { marksToSend, noteTakenShare } from '@/store/takenShares';
import { pairing } from '@/store/pairing';
import { desk } from '@/store/tables';
import type { ShareConnection } from './shareConnection';

/** Shares of marking over the classroom server: out to markers, and their marks back. What travels is sealed. */

const chance = (length: number) => crypto.getRandomValues(new Uint8Array(length));
const bytesOf = (text: string) => new TextEncoder().encode(text);

/** Up to where marks were taken in, and of which mailbox. */
const heardKey = 'sharesHeard';

async function heardOf(mailbox: string): Promise<number> {
  const { value } = (await desk.settings.get(heardKey)) ?? { value: null };
  const heard = value as { mailbox?: unknown; rev?: unknown } | null;
  return heard?.mailbox === mailbox && typeof heard.rev === 'number' ? heard.rev : 0;
}

/** Takes in what markers have put on the server since; nothing is asked where no share went that way. */
export async function pullMarks(server: ShareConnection, now: string): Promise<void> {
  const shares = (await desk.shares.toArray()).filter(({ way }) => way === 'server');
  const paired = await pairing();
  if (shares.length === 0 || !paired) return;
  const { rev, marks } = await server.news(await heardOf(paired.mailbox));
  const secrets = new Map(shares.map(({ id, secret }) => [id, secret]));
  const backs: MarksBack[] = [];
  for (const { text } of marks) {
    const read = await readMarks(bytesOf(text), (id) => secrets.get(id));
    // What is not ours, or was spoilt on the way, comes again whole with the marker's next mark.
    if (read.outcome === 'read') backs.push(read.back);
  }
  if (backs.length > 0) await takeMarksFromServer(backs, now);
  await desk.settings.put({ key: heardKey, value: { mailbox: paired.mailbox, rev } });
}

/** A share as the text of a file. */
export async function sealedShare(shareId: string): Promise<string> {
  const { content, code } = await shareToSend(shareId);
  return shareText(content, code, chance);
}

/** Puts a share on the server. */
export async function putShare(server: ShareConnection, shareId: string, now: string): Promise<void> {
  const { content, code } = await shareToSend(shareId);
  await server.put(shareId, { code, text: await shareText(content, code, chance) });
  await noteOnServer(shareId, now);
}

/** Fetches the share of a code; null where the server knows none. @throws {ServerFault} otherwise */
export async function fetchShare(server: ShareConnection, code: string): Promise<ShareContent | null> {
  try {
    const { text } = await server.ask(code);
    const read = await readShare(bytesOf(text), code);
    return read.outcome === 'read' ? read.content : null;
  } catch (error) {
    if (error instanceof ServerFault && (error.why === 'notFound' || error.why === 'badRequest')) return null;
    throw error;
  }
}

/** Marks made of a taken share as the text of a file; null where there is no such share here. */
export async function sealedMarks(sittingId: string, now: string): Promise<string | null> {
  const found = await marksToSend(sittingId, now);
  return found && marksText(found.back, found.title, found.taken.secret, chance);
}

/**
 * Puts the marks made of a taken share on the server, all of them: what was sent before is replaced.
 *
 * @returns whether they were taken; they are not of one that was pulled back
 */
export async function sendMarks(server: ShareConnection, sittingId: string, now: string): Promise<boolean> {
  // Of two tabs one after the other: what was read earlier must not come later.
  const locks = (navigator as { locks?: LockManager }).locks;
  const send = () => sendNow(server, sittingId, now);
  return locks ? locks.request(`gribbet-share ${sittingId}`, send) : send();
}

async function sendNow(server: ShareConnection, sittingId: string, now: string): Promise<boolean> {
  const found = await marksToSend(sittingId, now);
  if (!found) return false;
  const text = await marksText(found.back, found.title, found.taken.secret, chance);
  try {
    await server.putMarks({ code: found.taken.code, text });
    await noteTakenShare(sittingId, { sentAt: now, pulledBackAt: undefined });
    return true;
  } catch (error) {
    if (!(error instanceof ServerFault) || error.why !== 'pulledBack') throw error;
    await noteTakenShare(sittingId, { pulledBackAt: now });
    return false;
  }
}
