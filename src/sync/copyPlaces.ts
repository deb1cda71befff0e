import type { CopyFault } from '@/core/formats/backup/copyDue';
import Dexie, { type Table } from 'dexie';
import { nanoid } from 'nanoid';
import { base64From } from '@/core/basics/base64';
import type { DeskIndex } from '@/core/formats/backup/pieces';
import type { Computer } from '@/core/model/deskHold';
import { onRowsChanged } from '@/store/changes';
import { pairing } from '@/store/pairing';
import { desk } from '@/store/tables';

interface Place {
  /** When the last copy was made; null: none yet. */
  lastAt: string | null;
  /** Since when the desk has changed beyond the last copy; null: it has not. */
  changedSince: string | null;
  /** Since when what changed is in the copy that is being made; it stays where the page was left before that ended. */
  underWay?: string | null;
  fault: CopyFault | null;
  /** Of which desk the copies were that this browser put there last. */
  deskId?: string;
  /** What had been done last on the desk when the last copy was begun. */
  lastDone?: string;
}

/** A folder that the teacher chose. */
export interface FolderPlace extends Place {
  key: 'folder';
  handle: FileSystemDirectoryHandle;
}

/** The classroom server that this browser is paired with. */
export interface ServerPlace extends Place {
  key: 'server';
  /** What copies there are sealed with; empty once the pairing was ended here. */
  secret: string;
  /** In Base64; drawn once. */
  salt: string;
  /** The desk as it was there last, and was here: what changed since is told against it. */
  sent?: {
    deskId: string;
    at: string;
    index: DeskIndex;
    /** The sealed parts of its files; absent: not known. */ files?: string[];
  };
}

/** What this browser is known by to the server. */
interface ThisComputer extends Computer {
  key: 'this';
}

/** The key of the seal, as it was drawn from secret and salt: that takes a second and more. */
interface SealKey extends Pick<ServerPlace, 'secret' | 'salt'> {
  bytes: Uint8Array;
}

export type CopyPlace = FolderPlace | ServerPlace;

/** Where copies keep themselves. A database of its own, so that it is still there when the desk is gone. */
class CopyDatabase extends Dexie {
  declare places: Table<CopyPlace, CopyPlace['key']>;
  declare computer: Table<ThisComputer, 'this'>;
  declare seals: Table<SealKey, string>;

  constructor(name = 'gribbet-copies') {
    super(name);
    this.version(1).stores({ places: 'key' });
    this.version(2).stores({ places: 'key', computer: 'key' });
    this.version(3).stores({ places: 'key', computer: 'key', seals: 'salt' });
  }
}

export const copyPlaces = new CopyDatabase();

export async function folderPlace(): Promise<FolderPlace | undefined> {
  const found = await copyPlaces.places.get('folder');
  return found?.key === 'folder' ? found : undefined;
}

export async function serverPlace(): Promise<ServerPlace | undefined> {
  const found = await copyPlaces.places.get('server');
  return found?.key === 'server' ? found : undefined;
}

/** This browser, as the server and the teacher's other computers know it; null until it is drawn. */
export const knownComputer = async (): Promise<Computer | null> =>
  (await copyPlaces.computer.get('this')) ?? null;

/** The same, drawn when it is asked for first. */
export async function thisComputer(): Promise<Computer> {
  return copyPlaces.transaction('rw', copyPlaces.computer, async () => {
    const found = await copyPlaces.computer.get('this');
    if (found) return { id: found.id, name: found.name };
    const { userAgent = '' } = (globalThis as { navigator?: Navigator }).navigator ?? {};
    // As the browser says it (MDN, "User-Agent header"), until somebody gives it a name.
    const [name = 'Computer'] = /Windows|Android|CrOS|iPad|iPhone|Macintosh|Linux/.exec(userAgent) ?? [];
    const computer = { id: nanoid(12), name };
    await copyPlaces.computer.put({ key: 'this', ...computer });
    return computer;
  });
}

export async function nameThisComputer(name: string): Promise<Computer> {
  const { id } = await thisComputer();
  await copyPlaces.computer.put({ key: 'this', id, name });
  return { id, name };
}

/** Changes what is known of the copies on the server, where there is anything. */
export async function changeServerPlace(patch: Partial<Omit<ServerPlace, 'key'>>): Promise<void> {
  await copyPlaces.transaction('rw', copyPlaces.places, async () => {
    const place = await serverPlace();
    if (place) await copyPlaces.places.put({ ...place, ...patch });
  });
}

/** The key that was drawn from these. */
export async function knownSealKey({ secret, salt }: Pick<ServerPlace, 'secret' | 'salt'>) {
  const known = await copyPlaces.seals.get(salt);
  return known?.secret === secret ? known.bytes : null;
}

/** Keeps the key that was drawn, as long as the secret itself is kept here. */
export async function keepSealKey(
  of: Pick<ServerPlace, 'secret' | 'salt'>,
  bytes: Uint8Array,
): Promise<void> {
  await copyPlaces.transaction('rw', copyPlaces.places, copyPlaces.seals, async () => {
    if ((await serverPlace())?.secret === of.secret)
      await copyPlaces.seals.put({ secret: of.secret, salt: of.salt, bytes });
  });
}

/** The pairing is over: the secret goes from this browser, and what was drawn from it. */
export async function forgetSecret(): Promise<void> {
  await copyPlaces.transaction('rw', copyPlaces.places, copyPlaces.seals, async () => {
    await changeServerPlace({ secret: '', fault: 'unpaired' });
    await copyPlaces.seals.clear();
  });
}

/**
 * The server this browser is paired with is a place. Once the pairing is ended here the secret goes; what else is known
 * stays, so that the same seals are made when it is paired again.
 */
export async function keepServerPlace(): Promise<ServerPlace | undefined> {
  const paired = await pairing();
  const place = await serverPlace();
  if (!paired) {
    if (place && place.secret !== '') await forgetSecret();
    return undefined;
  }
  if (place?.secret === paired.secret) return place;
  const next: ServerPlace = {
    key: 'server',
    secret: paired.secret,
    salt: place?.salt ?? base64From(crypto.getRandomValues(new Uint8Array(16))),
    // It is copied at once, as nothing is there; whether it was changed since is another question.
    ...{ lastAt: null, changedSince: place ? notCopiedSince(place) : null, fault: null },
  };
  // What was drawn from the secret of before goes with it.
  await copyPlaces.seals.clear();
  await copyPlaces.places.put(next);
  return next;
}

/** Notes that the desk has changed beyond the last copy. @param where absent: in every place */
export async function noteChange(where: (place: CopyPlace) => boolean = () => true): Promise<void> {
  await copyPlaces.places
    .filter((place) => place.changedSince === null && where(place))
    .modify({ changedSince: new Date().toISOString() });
}

/** Since when there are changes that no copy in this place has for certain; null: it has them all. */
export const notCopiedSince = ({ changedSince, underWay }: CopyPlace): string | null =>
  underWay ?? changedSince;

/** A copy is begun: what changes from here on is in the next one. What this one is of is kept until it has ended. */
export async function beginCopy(key: CopyPlace['key'], at: string): Promise<void> {
  const done = await lastDone();
  await changePlace(key, (place) => {
    place.underWay = notCopiedSince(place) ?? at;
    place.changedSince = null;
    place.lastDone = done;
  });
}

/** It is there. */
export const endCopy = (key: CopyPlace['key'], lastAt: string, deskId: string): Promise<void> =>
  changePlace(key, (place) => Object.assign(place, { lastAt, deskId, fault: null, underWay: null }));

/** It could not be made: what it is of is in none. */
export const breakOffCopy = (key: CopyPlace['key'], at: string, fault: CopyFault): Promise<void> =>
  changePlace(key, (place) =>
    Object.assign(place, { fault, changedSince: notCopiedSince(place) ?? at, underWay: null }),
  );

/** Copies that were under way when their page was left are to be made anew. */
export async function takeUpCopies(): Promise<void> {
  await copyPlaces.places
    .filter(({ underWay }) => Boolean(underWay))
    .modify((place) => {
      place.changedSince = notCopiedSince(place);
      place.underWay = null;
    });
}

async function changePlace(key: CopyPlace['key'], change: (place: CopyPlace) => void): Promise<void> {
  await copyPlaces.places.where('key').equals(key).modify(change);
}

/** Stands for what was done last on the desk, as the record of changes has it. */
export async function lastDone(): Promise<string> {
  const last = await desk.log.orderBy('seq').last();
  return last ? `${last.seq} ${last.at} ${last.undoneAt ?? ''}` : '';
}

/** What can be made again, or is of this browser alone, is in no copy. */
const apart = new Set(['progress', 'totals', 'carried', 'posted', 'pairing', 'elsewhere', 'readPages']);

/** Notes changes of the desk from now on, wherever they are made. @returns ends it */
export const noteChanges = (): (() => void) =>
  onRowsChanged((table) => {
    if (!apart.has(table)) void noteChange();
  });
