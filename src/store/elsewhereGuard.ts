import Dexie, { type DBCore, type DBCoreTable } from 'dexie';
import { CommandFault } from '@/core/model/commandFault';
import { deskTables } from '@/core/model/desk';

/**
 * A desk that another computer holds is for reading only here: whatever is to be written to it is refused at the
 * database, wherever it comes from. Caches and the pairing go on.
 */

/** The computer that holds the desk in place of this one. */
export interface DeskElsewhere {
  key: 'now';
  /** What it is called. */
  computer: string;
  since: string;
  /** Up to when what was done here is there too; null: nothing is. */
  sentAt: string | null;
  /**
   * `taken`: the other computer took it over. `giving`: it is about to, and the last changes are sent. `taking`: it is being
   * taken over here. `forgotten`: this browser was forgotten by the server.
   */
  why: 'taken' | 'giving' | 'taking' | 'forgotten';
}

/** As it was read last. */
let known: DeskElsewhere | undefined;
/** How many put the desk of the other computer in place. */
let settling = 0;

/** Whether the desk is to be read only here, as it was heard last. */
export const isElsewhere = (): boolean => known !== undefined;

/** Does work that puts the desk of another computer in place. */
export async function settled<T>(work: () => Promise<T>): Promise<T> {
  settling++;
  try {
    return await work();
  } finally {
    settling--;
  }
}

/** Has a database refuse what is written to a desk that is elsewhere. */
export function guardElsewhere(db: Dexie): void {
  const table = db.table<DeskElsewhere, 'now'>('elsewhere');
  const look = async () => {
    known = await table.get('now');
  };
  const refuses = (name: string) => known !== undefined && settling === 0 && Object.hasOwn(deskTables, name);
  db.use({
    stack: 'dbcore',
    name: 'elsewhere',
    create: (down: DBCore): DBCore => ({
      ...down,
      table: (name: string): DBCoreTable => {
        const below = down.table(name);
        return {
          ...below,
          mutate: (request) =>
            refuses(name)
              ? Promise.reject(new CommandFault('deskElsewhere', known?.computer ?? ''))
              : below.mutate(request).then((done) => {
                  // Known here at once: what is written next may depend on it.
                  if (name === 'elsewhere')
                    known = 'values' in request ? (request.values[0] as DeskElsewhere) : undefined;
                  return done;
                }),
        };
      },
    }),
  });
  db.on('ready', look, true);
  // In this tab or worker, or in another one.
  Dexie.on('storagemutated', (parts) => {
    if (Object.keys(parts).some((part) => part.startsWith(`idb://${db.name}/elsewhere/`))) void look();
  });
}
