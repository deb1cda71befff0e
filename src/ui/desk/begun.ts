import { useEffect, useState } from 'react';
import { begunWith, setBegunWith } from '@/store/deskSettings';
import { desk } from '@/store/tables';

let beginning: Promise<void> | null = null;

/** True once the desk is laid out: on a fresh profile with the demo course, unless the server says to start empty. */
export function useDeskBegun(): boolean {
  const [begun, setBegun] = useState(false);
  useEffect(() => {
    let here = true;
    beginning ??= begin();
    void beginning.then(() => here && setBegun(true));
    return () => {
      here = false;
    };
  }, []);
  return begun;
}

async function begin(): Promise<void> {
  if ((await begunWith()) !== null) return;
  const empty = (await desk.students.count()) === 0 && (await desk.papers.count()) === 0;
  if (empty && document.documentElement.dataset.demo === 'yes') {
    const { layOutDemo } = await import('@demo/layOut');
    await layOutDemo(Date.now());
  } else await setBegunWith('empty');
}
