import { Button, Select } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useState } from 'react';
import { sittingsByCourse } from '@/core/sittings/deskOrder';
import { fileNameOf } from '@/core/formats/fileName';
import { act, say } from '@/desk/act';
import { Working } from '@/desk/PutBack';
import { desk } from '@/store/tables';
import { isoNow } from '@/ui/clock';
import { saveBlob } from '@/ui/saveFile';
import { savedPart } from '@/workers/backupWork';
import { counted, dayAlone } from '@/words/format';
import styles from './BackupPage.module.css';

/** One course, or one sitting. */
interface Part {
  value: string;
  label: string;
  title: string;
  sittingIds: string[];
}

/** One course or one sitting as a file of its own, for another desk. */
export function SavePart() {
  const parts = useLiveQuery(partsHere) ?? [];
  const [value, setValue] = useState<string | null>(null);
  const [working, setWorking] = useState<{ share: number; stop: () => void } | null>(null);
  const part = parts.flatMap(({ items }) => items).find((each) => each.value === value);
  const save = async ({ title, sittingIds }: Part) => {
    const work = savedPart(title, sittingIds, isoNow(), (share) =>
      setWorking((now) => now && { ...now, share }),
    );
    setWorking({ share: 0, stop: work.stop });
    const blob = await act(work.result);
    setWorking(null);
    if (!blob) return;
    saveBlob(`gribbet-${fileNameOf(title)}.zip`, blob);
    say(`Saved: ${title}`);
  };
  if (parts.length === 0) return null;
  return (
    <section className={styles.part}>
      <h2>Save one course or one sitting</h2>
      <p>
        For a colleague’s desk: its papers, students, answers, marks and comments, without the rest. The other
        desk chooses the file under <em>Restore a backup</em>, and is asked about what it has already.
      </p>
      <div className={styles.row}>
        <Select
          aria-label="Course or sitting"
          placeholder="Course or sitting"
          searchable
          w="min(340px, 100%)"
          value={value}
          onChange={setValue}
          data={parts.map(({ group, items }) => ({
            group,
            items: items.map(({ value: id, label }) => ({ value: id, label })),
          }))}
        />
        <Button disabled={!part || working !== null} onClick={() => part && void save(part)}>
          Save this part
        </Button>
      </div>
      {working && <Working what="Writing the file" share={working.share} stop={working.stop} />}
    </section>
  );
}

async function partsHere(): Promise<{ group: string; items: Part[] }[]> {
  const sittings = (await desk.sittings.toArray())
    .filter(({ rehearsal, share }) => rehearsal !== true && share !== true)
    .sort((a, b) => (a.opensAt < b.opensAt ? 1 : -1));
  const courses = [...sittingsByCourse(sittings, await desk.groups.toArray())]
    .filter(([course]) => course !== '')
    .map(([course, own]) => [course, own.map(({ id }) => id)] as const);
  const ofCourses = courses.map(([course, sittingIds]): Part => ({
    ...{ value: `course ${course}`, label: `${course}: ${counted(sittingIds.length, 'sitting')}` },
    ...{ title: course, sittingIds },
  }));
  const single = sittings.map(({ id, title, opensAt }): Part => ({
    ...{ value: id, label: `${title}, ${dayAlone(opensAt)}`, title, sittingIds: [id] },
  }));
  return [
    { group: 'Courses', items: ofCourses },
    { group: 'Sittings', items: single },
  ].filter(({ items }) => items.length > 0);
}
