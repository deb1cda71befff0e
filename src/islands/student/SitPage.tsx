import { Suspense, useEffect, useMemo, useState } from 'react';
import type { Greeting, HomeSitting } from '@/carriers/Carrier';
import { chosenLazily } from '@/carriers/lazily';
import { Announcements } from '@/ui/announce';
import { Wordmark } from '@/ui/Wordmark';
import { EnterCode } from './EnterCode';
import { Fetched } from './Fetched';
import type { View } from './Inside';
import { heldAreHere, paperIsHere } from './sitParts';
import { fetchInside, Inside, keptHere, OpenFile } from './later';
import styles from './student.module.css';

const resultKey = 'gribbet-result-seen';

/** The result that was looked at in this tab before it was reloaded. */
function reloaded(): { joinCode: string; sitting: Pick<HomeSitting, 'sittingId' | 'title'> } | null {
  try {
    const { joinCode, sitting } = JSON.parse(sessionStorage.getItem(resultKey) ?? 'null');
    return typeof joinCode === 'string' && typeof sitting?.sittingId === 'string'
      ? { joinCode, sitting }
      : null;
  } catch {
    return null;
  }
}

/** The student's side: one page, from the join code to the result. */
export function SitPage() {
  const carrier = useMemo(() => chosenLazily(), []);
  const [who, setWho] = useState<Greeting | null>(null);
  const [view, setView] = useState<View>({ name: 'home' });
  const home = () => setView({ name: 'home' });
  // Once the form stands, what a paper is sat with comes by itself; where it does not, it is asked for again.
  useEffect(() => {
    const timer = setTimeout(
      () =>
        void Promise.all([fetchInside(), paperIsHere(), heldAreHere()])
          .then(() => keptHere(who === null))
          .catch(() => undefined),
      300,
    );
    return () => clearTimeout(timer);
  }, [who]);
  // A result that is reloaded in its tab is there again, without the code.
  useEffect(() => {
    const seen = reloaded();
    if (seen)
      void carrier.greet(seen.joinCode).then(
        (greeting) => greeting && (setWho(greeting), setView({ name: 'result', sitting: seen.sitting })),
        () => undefined,
      );
  }, [carrier]);
  useEffect(() => {
    if (who && view.name === 'result')
      sessionStorage.setItem(resultKey, JSON.stringify({ joinCode: who.joinCode, sitting: view.sitting }));
    else if (who) sessionStorage.removeItem(resultKey);
  }, [who, view]);
  const leave = () => {
    sessionStorage.removeItem(resultKey);
    setWho(null);
  };
  const opened = async (joinCode: string) => {
    const greeting = await carrier.greet(joinCode);
    if (greeting) setWho(greeting);
    home();
  };
  return (
    <>
      <header className={styles.bar}>
        <Wordmark />
        {who && (
          <span className={styles.who}>
            {who.givenName} {who.familyName}
            {view.name !== 'attempt' && (
              <button type="button" className={styles.quiet} onClick={leave}>
                Leave
              </button>
            )}
          </span>
        )}
      </header>
      <Announcements />
      <main className={styles.page}>
        <Fetched>
          <Suspense fallback={<p role="status">One moment…</p>}>
            {view.name === 'file' && <OpenFile who={who} opened={opened} back={home} />}
            {!who && view.name !== 'file' && (
              <EnterCode
                carrier={carrier}
                enter={(greeting) => (setWho(greeting), home())}
                goOn={(greeting, held) => (
                  setWho(greeting),
                  setView({ name: 'attempt', held, opened: false })
                )}
                openFile={() => setView({ name: 'file' })}
              />
            )}
            {who && view.name !== 'file' && (
              <Inside carrier={carrier} who={who} view={view} show={setView} leave={leave} />
            )}
          </Suspense>
        </Fetched>
      </main>
    </>
  );
}
