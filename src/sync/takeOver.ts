import { ServerFault } from '@/core/exchange/serverFault';
import { checkedDesk, DeskRows, type Backup, type DeskContent, type Progress } from '@/core/formats/backup';
import type { DeskCopy } from '@/core/model/deskCopy';
import { piecesOf, unitsChanged, type Piece } from '@/core/formats/backup/pieces';
import {
  differencesOf,
  isAsked,
  oneDesk,
  type Difference,
  type Side,
  type TakeOverFault,
  type Topic,
} from '@/core/formats/backup/twoDesks';
import { forgottenAmong, forgottenIn } from '@/core/people/forgotten';
import { waitingFor, type Computer, type DeskHold } from '@/core/model/deskHold';
import { deskContent, putInPlace, replaceRows } from '@/store/backup';
import { forgetAgain } from '@/store/forget';
import { deskElsewhere, deskIsHere, leaveDesk, settled } from '@/store/elsewhere';
import { knownDeskId } from '@/store/deskSettings';
import { pairing } from '@/store/pairing';
import { desk } from '@/store/tables';
import { checkedContent, copyOntoServer, deskId, drawKey, fetchDesk, type FetchedDesk } from './copies';
import {
  copyPlaces,
  keepServerPlace,
  lastDone,
  serverPlace,
  thisComputer,
  type ServerPlace,
} from './copyPlaces';
import { takeForPosted } from './mailboxSync';
import type { ServerConnection } from './serverConnection';

/** Takes a desk over that another computer holds: fetched, held against what is here, and put in its place. */

const lookMs = 100;
/** One that was heard of within so long is there. */
const thereMs = 12_000;
/** It may take so long to send what was done last. */
const sendingMs = 30_000;
/** Two desks that were both changed are kept as they were so long. */
const keptDays = 90;

/**
 * What came from the computer that holds a desk. `all`: nothing is missing of what was done there; `away`: it was not heard of
 * lately; `silent`: it is there, and did not answer in time.
 */
export type HolderAnswer = 'all' | 'away' | 'silent';

/** What is found before anything is done. */
interface Found {
  hold: DeskHold | null;
  copy: DeskCopy;
  /** Whether it is the desk that this browser has, as it was before. */
  same: boolean;
  /** What differs, where it was changed on both since; empty: nothing that was done here gets lost. */
  differences: Difference[];
  answer: HolderAnswer;
  /** How many students were forgotten on one of both and are there on the other one: they go again. */
  forgotten: number;
  backup: Backup;
  fetched: FetchedDesk;
  place: ServerPlace;
  /** The desk that is in this browser. */
  here: DeskContent;
}

export interface TakeOverKit {
  line: ServerConnection;
  /** ISO instant. */
  now: () => string;
  progress?: Progress;
  /** Whether the last changes are waited for. */
  patient?: boolean;
}

/**
 * Fetches the desk as it is on the server, once whoever holds it has sent all there is.
 *
 * @throws {ServerFault} the server can't be reached, or this browser isn't paired
 */
export async function findDesk(
  id: string,
  { line, progress = () => undefined, patient = true }: TakeOverKit,
): Promise<Found | { fault: TakeOverFault }> {
  const place = await keepServerPlace();
  if (!place) throw new ServerFault('notPaired');
  // While the other computer sends what it has, what is here is read.
  const [answer, { here, same, known }] = await Promise.all([
    lastChanges(line, id, patient),
    deskHere(id),
    drawKey(place.secret, place.salt),
  ]);
  const [holds, copy] = await Promise.all([line.holds(), line.newestCopy(id)]);
  const hold = holds.find(({ deskId: of }) => of === id) ?? null;
  if (copy?.version !== 2) return { fault: { code: 'nothingThere' } };
  const fetched = await fetchDesk(line, place.secret, copy, known, progress);
  if (!fetched) return { fault: { code: 'sealed' } };
  const read = await checkedContent(line, place.secret, copy, fetched);
  if ('fault' in read) return read;
  const sent = place.sent?.deskId === id ? place.sent : null;
  const base = sent && new Map(sent.index.pieces.map(({ key, digest }) => [key, digest]));
  const digests = new Map([...known].map(([key, { digest }]) => [key, digest]));
  // What was not changed here since it was there has nothing that could be lost.
  const changedHere = same && (base === null || unitsChanged(base, digests).size > 0);
  const { rows } = read.backup;
  const everybody = [...here.rows.students, ...rows.students].map((student) => student.id);
  return {
    ...{ hold, copy, same, answer, place, fetched, here, backup: read.backup },
    differences: changedHere ? await differencesOf(here.rows, rows, base) : [],
    forgotten: changedHere ? (await forgottenAmong(everybody, forgottenOnEither(here.rows, rows))).size : 0,
  };
}

/** The desk in this browser, and its pieces where it is the one that is meant. */
type DeskHere = Pick<Found, 'here' | 'same'> & { known: Map<string, Piece> };

async function deskHere(id: string): Promise<DeskHere> {
  if (ahead?.id === id && ahead.of === (await heldElsewhere())) return ahead.desk;
  return readHere(id);
}

async function readHere(id: string): Promise<DeskHere> {
  const [here, own] = [await deskContent(), await knownDeskId()];
  const same = own === id;
  return {
    ...{ here, same },
    known: new Map(same ? (await piecesOf(here.rows)).map((piece) => [piece.key, piece]) : []),
  };
}

/** A desk that is elsewhere does not change here: it can be read before anybody asks for it. `of`: since when it is there. */
let ahead: { id: string; of: string; desk: Promise<DeskHere> } | null = null;

const heldElsewhere = async (): Promise<string | null> => {
  const elsewhere = await deskElsewhere();
  return elsewhere?.why === 'taken' ? `${elsewhere.computer} ${elsewhere.since}` : null;
};

/** Reads the desk in this browser, where another computer holds it: it may be taken over from there soon. */
export async function readAhead(): Promise<void> {
  const [id, of] = [await knownDeskId(), await heldElsewhere()];
  if (id === null || of === null) return;
  const reading = { id, of, desk: readHere(id) };
  ahead = reading;
  // What could not be read now is read when it is asked for.
  reading.desk.catch(() => {
    if (ahead === reading) ahead = null;
  });
}

/** Asks whoever holds a desk for the last changes. One that was not heard of lately is shut off; one that is there is waited for. */
async function lastChanges(line: ServerConnection, id: string, patient: boolean): Promise<HolderAnswer> {
  const computer = await thisComputer();
  const look = async () => (await line.holds()).find((hold) => hold.deskId === id);
  const before = await look();
  if (!before || before.computer.id === computer.id) return 'all';
  if (!patient) return 'away';
  // One that is there hears it, though its page may just be opening.
  if (before.heardMs === null || before.heardMs > thereMs) return 'away';
  await line.hold({ act: 'ask', deskId: id, computer });
  const began = performance.now();
  while (performance.now() - began < sendingMs) {
    await new Promise((resolve) => setTimeout(resolve, lookMs));
    const hold = await look();
    if (hold?.given) return 'all';
    // As long as it is heard of it is only busy.
    if (!hold?.asked?.heard && (hold?.heardMs ?? Infinity) > thereMs) break;
  }
  return 'silent';
}

/**
 * Takes the desk that was found over: from then on it is here, and for reading only where it was. Nothing is done here before the
 * server has said so; where putting it in place fails, it can be taken over again.
 *
 * @param choices from where each topic is taken that was changed on both
 */
export async function takeDesk(
  { hold, copy, backup, differences, place, fetched, here, same }: Found,
  choices: ReadonlyMap<Topic, Side>,
  { line, now, progress = () => undefined }: TakeOverKit,
): Promise<null | { fault: TakeOverFault }> {
  const [computer, paired, { deskId: id }] = [await thisComputer(), await pairing(), copy];
  const rows = differences.length > 0 ? oneDesk(here.rows, backup.rows, differences, choices) : backup.rows;
  if (differences.length > 0) {
    // What was fetched was checked as it was read.
    const checked = checkedDesk({ savedAt: copy.at, tables: rows }, DeskRows, false);
    if ('fault' in checked) return checked;
  }
  const at = now();
  if (differences.some(isAsked)) await keepBoth(line, { hold, copy, here, place }, computer, at);
  if (same) await desk.elsewhere.update('now', { why: 'taking' });
  try {
    await line.hold({ act: 'take', deskId: id, computer, turn: hold?.turn ?? 0, copyAt: copy.at });
  } catch (error) {
    if (same) await desk.elsewhere.update('now', { why: 'taken' });
    if (error instanceof ServerFault && error.why === 'changed') return { fault: { code: 'takenElsewhere' } };
    throw error;
  }
  const own = new Set(here.rows.assets.map((asset) => asset.id));
  const content = {
    rows,
    bytes: (fileId: string) => (own.has(fileId) ? here.bytes(fileId) : backup.bytes(fileId)),
  };
  await settled(async () => {
    // In one step with the rows: a browser that seems not to be paired forgets the secret.
    const along = async () => {
      // What the server had last is told anew: what is known of it here may be of long ago.
      await desk.posted.clear();
      await desk.carried.clear();
      if (paired) await desk.pairing.put({ ...paired, rev: 0 });
    };
    if (same) await replaceRows(here.rows, content, progress, along);
    else await putInPlace(content, progress, along);
    if (differences.length > 0) {
      await forgetAgain(forgottenOnEither(here.rows, backup.rows), at, async (students) => {
        await takeForPosted(Date.parse(at));
        const attempts = desk.attempts.where('studentId').anyOf([...students]);
        await desk.carried.bulkPut(await attempts.toArray());
      });
    }
    await deskIsHere();
  });
  await copyPlaces.places.put({
    ...place,
    ...{ salt: copy.salt, deskId: id, lastAt: copy.at, fault: null },
    ...{ changedSince: differences.length > 0 ? at : null, underWay: null, lastDone: await lastDone() },
    sent: { deskId: id, at: copy.at, index: fetched.index, files: copy.files },
  });
  return null;
}

const forgottenOnEither = (...desks: Pick<DeskRows, 'settings'>[]) =>
  new Set(desks.flatMap(({ settings }) => [...forgottenIn(settings)]));

/** Both desks as they were before one was made of them. */
async function keepBoth(
  line: ServerConnection,
  { hold, copy, here, place }: Pick<Found, 'hold' | 'copy' | 'here' | 'place'>,
  computer: Computer,
  now: string,
): Promise<void> {
  const until = new Date(Date.parse(now) + keptDays * 86_400_000).toISOString();
  const there = hold?.computer.name ?? computer.name;
  await line.putCopy({ ...copy, at: earlier(now, 1), kept: { computer: there, until } });
  const seal = { secret: place.secret, salt: copy.salt };
  await copyOntoServer(line, seal, here, copy.deskId, earlier(now, 2), {
    ...{ computer: computer.id, kept: { computer: computer.name, until } },
  });
}

/** Two copies of one moment would be one. */
const earlier = (at: string, ms: number) => new Date(Date.parse(at) - ms).toISOString();

/** Says that the desk is on this computer, unless another one holds it. @throws {ServerFault} elsewhere */
export async function holdDesk(line: ServerConnection): Promise<DeskHold> {
  return line.hold({ act: 'begin', deskId: await deskId(), computer: await thisComputer() });
}

/** Whether a desk may be changed here, and which other computer waits for its last changes. */
interface Following {
  here: boolean;
  /** null: none waits, or all was sent to it. */
  asked: Computer | null;
}

/**
 * What the server says of who holds this desk, held against what is known here: it is left to another computer, or it is here
 * again. Giving it that was broken off (its page was left, or whoever asked went and came back) is asked for anew.
 *
 * @param now by the server's clock, ms since 1970
 */
export async function followHolds(holds: readonly DeskHold[], now: number): Promise<Following> {
  const elsewhere = await deskElsewhere();
  const id = await knownDeskId();
  const hold = holds.find(({ deskId: of }) => of === id);
  const { id: mine } = await thisComputer();
  if (!hold || hold.computer.id === mine) {
    const asked = hold ? waitingFor(hold, now) : null;
    if (asked && !elsewhere) return { here: true, asked };
    if (asked && elsewhere?.why === 'giving') return { here: false, asked: hold?.given ? null : asked };
    // Whoever asked for it did not come back; or this browser was forgotten, and is paired again.
    const over = elsewhere?.why === 'giving' || elsewhere?.why === 'forgotten' || !hold;
    if (elsewhere && !over) return { here: false, asked: null };
    if (elsewhere) await deskIsHere();
    return { here: true, asked: null };
  }
  const { name: computer } = hold.computer;
  if (elsewhere?.why !== 'taken' || elsewhere.computer !== computer || elsewhere.since !== hold.since) {
    const place = await serverPlace();
    await leaveDesk({
      ...{ computer, since: hold.since, why: 'taken', sentAt: place?.lastAt ?? null },
    });
  }
  return { here: false, asked: null };
}
