import { Mutex } from 'async-mutex';

/** Locks by name: who asks for the same name waits, and for nobody else. */
export class NamedLocks {
  private readonly locks = new Map<string, Mutex>();

  async locked<W>(name: string, work: () => Promise<W>): Promise<W> {
    const lock = this.locks.get(name) ?? new Mutex();
    this.locks.set(name, lock);
    try {
      return await lock.runExclusive(work);
    } finally {
      if (!lock.isLocked()) this.locks.delete(name);
    }
  }
}
