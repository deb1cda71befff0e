import { MantineProvider } from '@mantine/core';
import { Suspense, useEffect, useMemo, useState } from 'react';
import type { Carrier, Greeting, HomeSitting } from '@/carriers/Carrier';
import { chosenCarrier } from '@/carriers/chosen';
import { Announcements } from '@/ui/announce';
import { cssVariables, theme } from '@/ui/theme';
import { Wordmark } from '@/ui/Wordmark';
import { FilesFrom, type Files } from '@/ui/files';
import { studentFiles } from './studentFiles';
import { EnterCode } from './EnterCode';
import { Home } from './Home';
import { Instructions } from './Instructions';
import { AttemptView, OpenFile, paperIsHere, ResultView } from './later';
import type { HeldAttempt } from '@/store/sitTables';
import styles from './student.module.css';

type View =
  | { name: 'home' }
  | { name: 'file' }
  | { name: 'instructions'; sitting: HomeSitting }
  | { name: 'attempt'; held: HeldAttempt; opened: boolean }
  | { name: 'result'; sitting: Pick<HomeSitting, 'sittingId' | 'title'> };

/** The files of the sitting that is in view. */
function filesOf(carrier: Carrier, who: Greeting | null, view: View): Files {
  const joinCode = who?.joinCode ?? '';
  if (view.name === 'attempt') return studentFiles(carrier, view.held);
  return studentFiles(carrier, { joinCode, sittingId: 'sitting' in view ? view.sitting.sittingId : '' });
}

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
  const carrier = useMemo(() => chosenCarrier(), []);
  const [who, setWho] = useState<Greeting | null>(null);
  const [view, setView] = useState<View>({ name: 'home' });
  const files = useMemo(() => filesOf(carrier, who, view), [carrier, who, view]);
  const home = () => setView({ name: 'home' });
  // Who has come in is about to sit a paper.
  useEffect(() => {
    if (who) void paperIsHere().catch(() => undefined);
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
    <MantineProvider theme={theme} cssVariablesResolver={cssVariables} defaultColorScheme="auto">
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
      <FilesFrom files={files}>
        <main className={styles.page}>
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
            {who && view.name === 'home' && (
              <Home
                carrier={carrier}
                who={who}
                goOn={(held) => setView({ name: 'attempt', held, opened: false })}
                openSitting={(sitting) => setView({ name: 'instructions', sitting })}
                openResult={(sitting) => setView({ name: 'result', sitting })}
                openFile={() => setView({ name: 'file' })}
                leave={leave}
              />
            )}
            {who && view.name === 'instructions' && (
              <Instructions
                carrier={carrier}
                who={who}
                sitting={view.sitting}
                started={(held) => setView({ name: 'attempt', held, opened: true })}
                back={home}
              />
            )}
            {who && view.name === 'attempt' && (
              <AttemptView
                carrier={carrier}
                held={view.held}
                opened={view.opened}
                done={home}
                seeResult={() =>
                  setView({
                    name: 'result',
                    sitting: { sittingId: view.held.sittingId, title: view.held.packet.title },
                  })
                }
              />
            )}
            {who && view.name === 'result' && (
              <ResultView carrier={carrier} who={who} sitting={view.sitting} back={home} />
            )}
          </Suspense>
        </main>
      </FilesFrom>
    </MantineProvider>
  );
}
