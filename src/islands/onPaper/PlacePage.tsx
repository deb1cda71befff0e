import { Button, NativeSelect, NumberInput } from '@mantine/core';
import { useState } from 'react';
import { fullName } from '@/core/model/names';
import type { Scan } from '@/core/model/scan';
import type { OnPaper } from '@/store/onPaper';
import { act } from '@/desk/act';
import { thisTab } from '@/desk/undoLast';
import { isoNow } from '@/ui/clock';
import { placeScanAs } from '@/workers/scans';
import { fromWords } from '@/words/onPaper';
import styles from './onPaper.module.css';

interface PlacePageProps {
  scan: Scan;
  on: OnPaper;
  /** What the button does. */
  does: string;
}

/** Says which page of whose paper a scan is; it is read anew as that. */
export function PlacePage({ scan, on, does }: PlacePageProps) {
  const [printId, setPrintId] = useState(scan.place?.printId ?? on.prints[0]?.id ?? '');
  const [copy, setCopy] = useState(scan.place ? String(scan.place.copy) : '');
  const [page, setPage] = useState(scan.place?.page ?? 1);
  const [working, setWorking] = useState(false);
  const print = on.prints.find(({ id }) => id === printId);
  const about = fromWords(scan.from);
  const same =
    scan.place?.printId === printId && scan.place.copy === Number(copy) && scan.place.page === page;
  const place = async () => {
    setWorking(true);
    await act(placeScanAs(scan.id, { printId, copy: Number(copy), page }, thisTab(), isoNow()).result);
    setWorking(false);
  };
  return (
    <>
      {on.prints.length > 1 && (
        <NativeSelect
          size="xs"
          aria-label={`Which papers ${about} belongs to`}
          value={printId}
          onChange={(event) => setPrintId(event.currentTarget.value)}
          data={on.prints.map(({ id, name }) => ({ value: id, label: name || 'As in the paper' }))}
        />
      )}
      <div className={styles.row}>
        <NativeSelect
          size="xs"
          aria-label={`Whose ${about} is`}
          value={copy}
          onChange={(event) => setCopy(event.currentTarget.value)}
          data={[
            { value: '', label: 'Whose is it?' },
            ...(print?.copies ?? []).map((id, index) => {
              const student = on.students.get(id ?? '');
              return { value: String(index + 1), label: student ? fullName(student) : `Paper ${index + 1}` };
            }),
          ]}
        />
        <NumberInput
          size="xs"
          aria-label={`Which page ${about} is`}
          w={64}
          min={1}
          max={print?.pages.length ?? 1}
          clampBehavior="strict"
          value={page}
          onChange={(value) => typeof value === 'number' && setPage(value)}
        />
        <Button
          size="compact-sm"
          aria-label={`${does}: ${about}`}
          disabled={copy === '' || same || working}
          onClick={() => void place()}
        >
          {does}
        </Button>
      </div>
    </>
  );
}
