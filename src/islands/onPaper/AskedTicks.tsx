import { Button } from '@mantine/core';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { numbersOf } from '@/core/kinds/itemNumbers';
import { askedRows, type AskedRow } from '@/core/intake/paper/askedRows';
import { fullName } from '@/core/model/names';
import type { OnPaper } from '@/store/onPaper';
import { settleRow } from '@/store/scans';
import { act } from '@/desk/act';
import type { Shortcut } from '@/desk/Help';
import { isoNow } from '@/ui/clock';
import { KeyHint } from '@/ui/KeyHint';
import { counted } from '@/words/format';
import { notReadWords } from '@/words/onPaper';
import { PagePart } from '../kinds/PaperPictures';
import { papersHeading } from './CopiesTable';
import styles from './onPaper.module.css';

export const askedKeys: Shortcut[] = [
  { keys: 'A–Z', does: 'that box is meant; where several can be, switches it' },
  { keys: '0', does: 'none is meant' },
  { keys: 'Enter', does: 'take what is put forward' },
  { keys: '↑ ↓', does: 'the row before, the next row' },
];

/** So many are drawn at a time: what is settled makes room. */
const drawn = 30;

/** Rows of boxes that can't be read for sure, each settled by one key. */
export function AskedTicks({ sittingId, on }: { sittingId: string; on: OnPaper }) {
  const rows = useMemo(
    () => askedRows(on.prints, ({ paperVersion }) => on.questions.get(paperVersion) ?? [], on.scans),
    [on],
  );
  const list = useRef<HTMLOListElement>(null);
  const [changed, setChanged] = useState<Record<string, string[]>>({});
  const next = useRef<number | null>(null);
  // Once what was settled is gone, the one that moved to its place has the keys.
  useEffect(() => {
    if (next.current === null) return;
    if (rows.length === 0) document.getElementById(papersHeading)?.focus();
    const all = list.current?.querySelectorAll<HTMLElement>('[data-asked]');
    all?.item(Math.min(next.current, all.length - 1))?.focus();
    next.current = null;
  }, [rows]);
  if (rows.length === 0) return null;
  const settle = async (row: AskedRow, ticked: readonly string[]) => {
    const number = numberOf(on, row);
    next.current = rows.indexOf(row);
    if (!(await act(settleRow(sittingId, row, { ...row, number }, ticked, isoNow())))) next.current = null;
  };
  const switchBox = (row: AskedRow, meant: readonly string[], id: string) =>
    setChanged({
      ...changed,
      [row.id]: meant.includes(id) ? meant.filter((each) => each !== id) : [...meant, id],
    });
  const step = (from: HTMLElement, by: 1 | -1) => {
    const all = [...(list.current?.querySelectorAll<HTMLElement>('[data-asked]') ?? [])];
    all[all.indexOf(from) + by]?.focus();
  };
  const onKey = (event: KeyboardEvent<HTMLElement>, row: AskedRow, meant: readonly string[]) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const box = row.boxes.find(({ letter }) => letter === event.key.toUpperCase());
    if (box && row.single) void settle(row, [box.id]);
    else if (box) switchBox(row, meant, box.id);
    else if (event.key === '0') void settle(row, []);
    else if (event.key === 'Enter' && event.target === event.currentTarget && meant.length > 0)
      void settle(row, meant);
    else if (event.key === 'ArrowDown') step(event.currentTarget, 1);
    else if (event.key === 'ArrowUp') step(event.currentTarget, -1);
    else return;
    event.preventDefault();
  };
  return (
    <section aria-label="Ticks to look at" className={styles.asked}>
      <h2>{counted(rows.length, 'answer')} to look at: what is ticked isn’t sure</h2>
      <p className={styles.soft}>
        <KeyHint keys="A–Z" /> says which box is meant, <KeyHint keys="0" /> none, <KeyHint keys="Enter" />{' '}
        takes what is put forward. Until then they are not read yet: neither wrong nor blank.
      </p>
      <ol ref={list} className={styles.plain}>
        {rows.slice(0, drawn).map((row) => {
          const meant = changed[row.id] ?? row.forward;
          return (
            <li key={row.id}>
              {/* A row that takes its own keys (WAI-ARIA 1.2, group). */}
              {/* eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions */}
              <div
                data-asked
                role="group"
                // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
                tabIndex={0}
                aria-label={`${whose(on, row)}, question ${numberOf(on, row)}: ${notReadWords[row.why]}`}
                className={styles.askedRow}
                onKeyDown={(event) => onKey(event, row, meant)}
              >
                <p>
                  <strong>{numberOf(on, row)}</strong> {whose(on, row)}: {notReadWords[row.why]}
                </p>
                <PagePart fileId={row.fileId} at={row.at} label="The boxes on paper" />
                <div className={styles.row}>
                  {row.boxes.map(({ id, letter, label }) => (
                    <Button
                      key={id}
                      size="compact-sm"
                      variant={meant.includes(id) ? 'light' : 'default'}
                      aria-pressed={meant.includes(id)}
                      aria-label={`${letter} ${label}`}
                      onClick={() => (row.single ? void settle(row, [id]) : switchBox(row, meant, id))}
                    >
                      {letter}
                    </Button>
                  ))}
                  <Button size="compact-sm" onClick={() => void settle(row, [])}>
                    None
                  </Button>
                  {meant.length > 0 && (
                    <Button size="compact-sm" onClick={() => void settle(row, meant)}>
                      {`Take: ${row.boxes.flatMap(({ id, letter }) => (meant.includes(id) ? [letter] : [])).join(' ')}`}
                    </Button>
                  )}
                </div>
              </div>
            </li>
          );
        })}
      </ol>
      {rows.length > drawn && <p className={styles.soft}>and {rows.length - drawn} more</p>}
    </section>
  );
}

const numberOf = (on: OnPaper, { printId, questionId }: AskedRow): string => {
  const print = on.prints.find(({ id }) => id === printId);
  return numbersOf(on.questions.get(print?.paperVersion ?? 0) ?? []).get(questionId) ?? '';
};

const whose = (on: OnPaper, { printId, copy }: AskedRow): string => {
  const print = on.prints.find(({ id }) => id === printId);
  const student = on.students.get(print?.copies[copy - 1] ?? '');
  return student ? fullName(student) : `Paper ${copy}`;
};
