import { useEffect, useState } from 'react';
import { begunWith, setBegunWith } from '@/store/deskSettings';
import { desk } from '@/store/tables';

/** Whether the desk is laid out, or one that was here is gone. */
export type DeskState = 'opening' | 'here' | 'gone';

let beginning: Promise<DeskState> | null = null;

/** How the desk is: laid out on a fresh profile with the demo course, unless the server says to start empty. */
export function useDeskState(): DeskState {
  const [state, setState] = useState<DeskState>('opening');
  useEffect(() => {
    let here = true;
    beginning ??= begin();
    void beginning.then((next) => here && setState(next));
    return () => {
      here = false;
    };
  }, []);
  return state;
}

/** Apart from the database, that a desk was here: a browser that makes its database anew keeps this. */
const wasHereKey = 'gribbet-desk-was-here';

/** Says that it is well: begin a new desk where one is gone. */
export function forgetDesk(): void {
  localStorage.removeItem(wasHereKey);
}

async function begin(): Promise<DeskState> {
  const state = await layOut();
  if (state === 'here') {
    localStorage.setItem(wasHereKey, new Date().toISOString());
    // Asked for once; a browser that grants it does not clear the desk when the disk gets full.
    void (navigator as { storage?: StorageManager }).storage?.persist?.().catch(() => false);
  }
  return state;
}

async function layOut(): Promise<DeskState> {
  if ((await begunWith()) !== null) return 'here';
  // Nothing is written before the teacher has seen it.
  if (localStorage.getItem(wasHereKey) !== null && (await desk.papers.count()) === 0) return 'gone';
  const empty = (await desk.students.count()) === 0 && (await desk.papers.count()) === 0;
  if (empty && document.documentElement.dataset.demo === 'yes') {
    const { layOutDemo } = await import('@demo/layOut');
    await layOutDemo(Date.now());
  } else await setBegunWith('empty');
  return 'here';
}
