import { useMemo } from 'react';
import type { Carrier, Greeting, HomeSitting } from '@/carriers/Carrier';
import { FilesFrom, type Files } from '@/ui/files';
import type { HeldAttempt } from '@/store/sitTables';
import { Home } from './Home';
import { Instructions } from './Instructions';
import { AttemptView, ResultView } from './sitParts';
import { studentFiles } from './studentFiles';

/** What a student looks at. */
export type View =
  | { name: 'home' }
  | { name: 'file' }
  | { name: 'instructions'; sitting: HomeSitting }
  | { name: 'attempt'; held: HeldAttempt; opened: boolean }
  | { name: 'result'; sitting: Pick<HomeSitting, 'sittingId' | 'title'> };

interface InsideProps {
  carrier: Carrier;
  who: Greeting;
  view: View;
  show: (view: View) => void;
  leave: () => void;
}

/** The files of the sitting that is in view. */
function filesOf(carrier: Carrier, { joinCode }: Greeting, view: View): Files {
  if (view.name === 'attempt') return studentFiles(carrier, view.held);
  return studentFiles(carrier, { joinCode, sittingId: 'sitting' in view ? view.sitting.sittingId : '' });
}

/** The students' side for who has come in: papers, sitting one, and what came back. */
export function Inside({ carrier, who, view, show, leave }: InsideProps) {
  const files = useMemo(() => filesOf(carrier, who, view), [carrier, who, view]);
  const home = () => show({ name: 'home' });
  return (
    <FilesFrom files={files}>
      {view.name === 'home' && (
        <Home
          carrier={carrier}
          who={who}
          goOn={(held) => show({ name: 'attempt', held, opened: false })}
          openSitting={(sitting) => show({ name: 'instructions', sitting })}
          openResult={(sitting) => show({ name: 'result', sitting })}
          openFile={() => show({ name: 'file' })}
          leave={leave}
        />
      )}
      {view.name === 'instructions' && (
        <Instructions
          carrier={carrier}
          who={who}
          sitting={view.sitting}
          started={(held) => show({ name: 'attempt', held, opened: true })}
          back={home}
        />
      )}
      {view.name === 'attempt' && (
        <AttemptView
          carrier={carrier}
          held={view.held}
          opened={view.opened}
          done={home}
          seeResult={() =>
            show({
              name: 'result',
              sitting: { sittingId: view.held.sittingId, title: view.held.packet.title },
            })
          }
        />
      )}
      {view.name === 'result' && (
        <ResultView
          key={view.sitting.sittingId}
          carrier={carrier}
          who={who}
          sitting={view.sitting}
          back={home}
          open={(sitting) => show({ name: 'result', sitting })}
        />
      )}
    </FilesFrom>
  );
}
