import { Button } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useState } from 'react';
import { SittingPage } from '@/desk/SittingPage';
import type { SittingData } from '@/desk/useSitting';
import { onPaperOf, type OnPaper } from '@/store/onPaper';
import { EmptyState } from '@/ui/EmptyState';
import { TwoColumns } from '@/ui/TwoColumns';
import { AskedPages } from './AskedPages';
import { AskedTicks, askedKeys } from './AskedTicks';
import { CopiesTable } from './CopiesTable';
import { ForeignPaper } from './ForeignPaper';
import { MakePapers } from './MakePapers';
import { PicturesBlock } from './PicturesBlock';
import { PrintsBlock } from './PrintsBlock';
import { ScansBlock } from './ScansBlock';

/** A sitting on paper: papers are printed, scans come in, and what could not be read is asked. */
export function OnPaperPage({ sittingId }: { sittingId: string }) {
  return (
    <SittingPage sittingId={sittingId} current="run" shortcuts={askedKeys}>
      {(sitting) => <OnPaperOf sitting={sitting} />}
    </SittingPage>
  );
}

function OnPaperOf({ sitting }: { sitting: SittingData }) {
  const on = useLiveQuery(() => onPaperOf(sitting.sitting.id), [sitting.sitting.id]);
  return on ? <Papers sitting={sitting} on={on} /> : <p role="status">Looking for answer papers…</p>;
}

function Papers({ sitting, on }: { sitting: SittingData; on: OnPaper }) {
  const [making, setMaking] = useState<'ours' | 'foreign' | null>(null);
  const none = on.prints.length === 0;
  return (
    <TwoColumns
      marginLabel="Printing and scanning"
      margin={
        <>
          <ScansBlock sittingId={sitting.sitting.id} on={on} />
          {!none && (
            <PrintsBlock
              sitting={sitting}
              on={on}
              making={making}
              make={(what) => setMaking(making === what ? null : what)}
            />
          )}
          {on.scans.length > 0 && <PicturesBlock scans={on.scans} />}
        </>
      }
    >
      {making === 'foreign' ? (
        <ForeignPaper sitting={sitting} on={on} done={() => setMaking(null)} />
      ) : (
        (none || making) && <MakePapers sitting={sitting} on={on} done={() => setMaking(null)} />
      )}
      {none ? (
        making !== 'foreign' && (
          <EmptyState
            title="Nothing is on paper yet"
            action={<Button onClick={() => setMaking('foreign')}>Use a paper printed elsewhere</Button>}
          >
            Print answer papers, let students fill them in, scan them and import the scans here. Ticks are
            scored by the key; what is written is marked on the picture of the page.
          </EmptyState>
        )
      ) : (
        <>
          <AskedPages on={on} />
          <AskedTicks sittingId={sitting.sitting.id} on={on} />
          <CopiesTable sitting={sitting} on={on} />
        </>
      )}
    </TwoColumns>
  );
}
