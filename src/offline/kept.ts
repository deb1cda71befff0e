import { deskKept, type PageWord, type WorkerWord } from './words';

/** How this browser keeps Gribbet for use without a network, as a page sees it. */

const address = '/serviceWorker.js';
/** Held by every tab in which something is being written, sat or marked: a new version waits for it. */
const inHand = 'gribbet-in-hand';

let registering: Promise<ServiceWorkerRegistration | null> | null = null;

/** Whether a page can be kept here: not over plain HTTP from another computer, nor while developing. */
export const canKeep = (): boolean => import.meta.env.PROD && 'serviceWorker' in navigator && isSecureContext;

/** Has the student's page kept; null where that can't be. Asked for once a page. */
export function keepPage(): Promise<ServiceWorkerRegistration | null> {
  if (!canKeep()) return Promise.resolve(null);
  registering ??= navigator.serviceWorker.register(address).catch(() => null);
  return registering;
}

/** Has the whole desk kept. @param progress told as it goes; @returns whether it is kept */
export async function keepDesk(progress: (done: number, of: number) => void): Promise<boolean> {
  if ((await keepPage()) === null) return false;
  const { active } = await navigator.serviceWorker.ready;
  return new Promise((resolve) => {
    const heard = ({ data }: MessageEvent<PageWord>) => {
      if (data.is === 'keeping') return progress(data.done, data.of);
      navigator.serviceWorker.removeEventListener('message', heard);
      resolve(data.is === 'kept');
    };
    navigator.serviceWorker.addEventListener('message', heard);
    navigator.serviceWorker.startMessages();
    active?.postMessage('keep the desk' satisfies WorkerWord);
  });
}

/** Whether the whole desk is kept. */
export const isDeskKept = async (): Promise<boolean> =>
  canKeep() && (await caches.match(deskKept)) !== undefined;

/** Keeps a new version waiting until what is returned is called. */
export function takeInHand(): () => void {
  if (!('locks' in navigator)) return () => undefined;
  let letGo: () => void = () => undefined;
  const until = new Promise<void>((resolve) => (letGo = resolve));
  void navigator.locks.request(inHand, { mode: 'shared' }, () => until);
  return () => letGo();
}

const isInHand = async (): Promise<boolean> =>
  ((await navigator.locks.query()).held ?? []).some(({ name }) => name === inHand);

/** Tells when a new version is here and waits. @returns ends it */
export function onNewVersion(waits: () => void): () => void {
  let over = false;
  void keepPage().then((registration) => {
    if (!registration || over) return;
    const look = () => registration.waiting && !over && waits();
    look();
    registration.addEventListener('updatefound', () => {
      const { installing } = registration;
      // The very first one has nothing to wait for.
      if (!registration.active) return;
      installing?.addEventListener('statechange', look);
    });
  });
  return () => {
    over = true;
  };
}

/** Begins the version that waits, and opens this page with it. @returns false where something is in hand in some tab */
export async function beginNewVersion(): Promise<boolean> {
  const waiting = (await keepPage())?.waiting;
  if (!waiting) return true;
  if (await isInHand()) return false;
  navigator.serviceWorker.addEventListener('controllerchange', () => window.location.reload(), {
    once: true,
  });
  waiting.postMessage('begin' satisfies WorkerWord);
  return true;
}
