import type { Carrier } from './Carrier';
import { classroomServer } from './classroomServer';
import { sameBrowserCarrier } from './sameBrowser';

/** Whether a teacher's desk lies in this browser. */
async function deskIsHere(): Promise<boolean> {
  // Where a browser cannot say, it is looked for.
  if (typeof indexedDB.databases !== 'function') return true;
  return (await indexedDB.databases()).some(({ name }) => name === 'gribbet-desk');
}

/**
 * The carrier of a student's page: to the desk in this browser where it knows the join code, otherwise to the classroom
 * server. Which one it is, is found when someone comes in; the page does not know.
 */
export function chosenCarrier(
  here: () => Promise<Carrier | null> = async () => ((await deskIsHere()) ? sameBrowserCarrier() : null),
  away: Carrier = classroomServer(),
): Carrier {
  const byCode = new Map<string, Carrier>();
  let desk: Promise<Carrier | null> | null = null;
  const nearby = () => (desk ??= here());

  const find = async <T>(ask: (carrier: Carrier) => Promise<T | null>): Promise<[T, Carrier] | null> => {
    const near = await nearby();
    const found = near && (await ask(near));
    if (near && found !== null) return [found, near];
    const other = await ask(away);
    return other === null ? null : [other, away];
  };
  const greeted = async (ask: (carrier: Carrier) => ReturnType<Carrier['greet']>) => {
    const found = await find(ask);
    if (!found) return null;
    const [greeting, carrier] = found;
    byCode.set(greeting.joinCode, carrier);
    return greeting;
  };
  const of = async (joinCode: string): Promise<Carrier> => {
    if (!byCode.has(joinCode)) await greeted((carrier) => carrier.greet(joinCode));
    return byCode.get(joinCode) ?? away;
  };

  return {
    greet: (joinCode) => greeted((carrier) => carrier.greet(joinCode)),
    comeAsGuest: (name, accessCode) => greeted((carrier) => carrier.comeAsGuest(name, accessCode)),
    home: async (code) => (await of(code)).home(code),
    start: async (code, ...rest) => (await of(code)).start(code, ...rest),
    handOver: async (code, ...rest) => (await of(code)).handOver(code, ...rest),
    handOverFile: async (code, ...rest) => (await of(code)).handOverFile(code, ...rest),
    file: async (code, ...rest) => (await of(code)).file(code, ...rest),
    practise: async (code, ...rest) => (await of(code)).practise(code, ...rest),
    ask: async (code, ...rest) => (await of(code)).ask(code, ...rest),
    handIn: async (code, ...rest) => (await of(code)).handIn(code, ...rest),
    result: async (code, ...rest) => (await of(code)).result(code, ...rest),
  };
}
