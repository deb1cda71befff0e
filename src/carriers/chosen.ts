import type { FileCarrier } from './inFiles';
import type { Carrier, HomeSitting } from './Carrier';
import { classroomServer } from './classroomServer';
import { filesWhenNeeded } from './filesWhenNeeded';

/** Whether a teacher's desk lies in this browser. */
async function deskIsHere(): Promise<boolean> {
  // Where a browser cannot say, it is looked for.
  if (typeof indexedDB.databases !== 'function') return true;
  return (await indexedDB.databases()).some(({ name }) => name === 'gribbet-desk');
}

/** Who carries for a code: it is asked for once, nearby first. */
function carriersByCode(nearby: () => Promise<Carrier | null>, away: Carrier, hand: FileCarrier) {
  /** Who knows each code; null: nobody but this device. */
  const byCode = new Map<string, Carrier | null>();
  const greeted = async (ask: (carrier: Carrier) => ReturnType<Carrier['greet']>) => {
    const near = await nearby();
    for (const carrier of near ? [near, away] : [away]) {
      const greeting = await ask(carrier);
      if (!greeting) continue;
      byCode.set(greeting.joinCode, carrier);
      return greeting;
    }
    return null;
  };
  const greet = async (joinCode: string) => {
    const known = await hand.greet(joinCode);
    // A code that only this device knows is not asked for again and again: it would be taken for guessing.
    if (known && (await hand.onlyHere(joinCode))) {
      byCode.set(joinCode, null);
      return known;
    }
    try {
      const greeting = await greeted((carrier) => carrier.greet(joinCode));
      if (!greeting && known) {
        await hand.keepOnlyHere(joinCode);
        byCode.set(joinCode, null);
      }
      return greeting ?? known;
    } catch (error) {
      if (known) return known;
      throw error;
    }
  };
  /** Who carries for this code, besides what came by hand. */
  const of = async (joinCode: string): Promise<Carrier | null> => {
    if (!byCode.has(joinCode)) await greet(joinCode);
    const carrier = byCode.get(joinCode);
    return carrier === undefined && (await hand.greet(joinCode)) === null ? away : (carrier ?? null);
  };
  return { greeted, greet, of };
}

/** What is here by hand and what is elsewhere as one list, the newest first; a sitting of both is the one that goes on. */
function joinedHome(
  held: readonly HomeSitting[],
  others: readonly HomeSitting[],
  goesOnElsewhere: ReadonlySet<string>,
): HomeSitting[] {
  const mine = held
    .filter(({ sittingId }) => !goesOnElsewhere.has(sittingId))
    .map((row) => {
      const other = others.find(({ sittingId }) => sittingId === row.sittingId);
      return { ...row, handedBack: row.handedBack || other?.handedBack === true };
    });
  const rest = others.filter(({ sittingId }) => !mine.some((row) => row.sittingId === sittingId));
  return [...mine, ...rest].sort((a, b) => b.opensAt.localeCompare(a.opensAt));
}

/**
 * The carrier of a student's page: by hand for what came to this device as a file; otherwise to the desk in this browser
 * where it knows the join code, or else to the classroom server. Which one it is, is found when someone comes in; the
 * page does not know.
 */
export function chosenCarrier(
  here: () => Promise<Carrier | null> = async () =>
    (await deskIsHere()) ? (await import('./sameBrowser')).sameBrowserCarrier() : null,
  away: Carrier = classroomServer(),
  hand: FileCarrier = filesWhenNeeded(),
): Carrier {
  let desk: Promise<Carrier | null> | null = null;
  const { greeted, greet, of } = carriersByCode(() => (desk ??= here()), away, hand);

  /** Sittings that are both here by hand and elsewhere, and go on there. */
  const elsewhere = new Set<string>();
  const ofSitting = async (joinCode: string, sittingId: string): Promise<Carrier> => {
    const held = !elsewhere.has(sittingId) && (await hand.holds(joinCode, sittingId));
    return held ? hand : ((await of(joinCode)) ?? hand);
  };
  const ofAttempt = async (joinCode: string, attemptId: string): Promise<Carrier> =>
    (await hand.holdsAttempt(attemptId)) ? hand : ((await of(joinCode)) ?? hand);

  const othersOf = async (joinCode: string): Promise<HomeSitting[]> =>
    (await (await of(joinCode))?.home(joinCode)) ?? [];

  const home = async (joinCode: string): Promise<HomeSitting[]> => {
    const held = await hand.home(joinCode);
    const others = await othersOf(joinCode).catch((error: unknown) => {
      // What came by hand is there without anyone answering.
      if (held.length === 0) throw error;
      return [];
    });
    elsewhere.clear();
    for (const { sittingId } of held.filter(({ state }) => state === 'notStarted'))
      if (others.some((other) => other.sittingId === sittingId && other.state !== 'notStarted'))
        elsewhere.add(sittingId);
    return joinedHome(held, others, elsewhere);
  };

  return {
    greet,
    comeAsGuest: (name, accessCode) => greeted((carrier) => carrier.comeAsGuest(name, accessCode)),
    home,
    start: async (code, id, ...rest) => (await ofSitting(code, id)).start(code, id, ...rest),
    handOver: async (code, id, ...rest) => (await ofAttempt(code, id)).handOver(code, id, ...rest),
    present: async (code, id, tabId) => (await ofAttempt(code, id)).present(code, id, tabId),
    handOverFile: async (code, id, ...rest) => (await ofAttempt(code, id)).handOverFile(code, id, ...rest),
    file: async (code, id, fileId) => {
      const first = await (await ofSitting(code, id)).file(code, id, fileId);
      return first ?? (await (await of(code))?.file(code, id, fileId)) ?? null;
    },
    practise: async (code, id, ...rest) => (await ofAttempt(code, id)).practise(code, id, ...rest),
    ask: async (code, id, ...rest) => (await ofSitting(code, id)).ask(code, id, ...rest),
    handIn: async (code, id) => (await ofAttempt(code, id)).handIn(code, id),
    // What was handed back another way than it was given out.
    result: async (code, id, opening) => {
      const first = await (await ofSitting(code, id)).result(code, id, opening);
      return first ?? (await (await of(code))?.result(code, id, opening)) ?? null;
    },
    correct: async (code, id, ...rest) => (await ofSitting(code, id)).correct(code, id, ...rest),
    toHand: async (code, id) => (await ofSitting(code, id)).toHand(code, id),
  };
}
