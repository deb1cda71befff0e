import { Button, Select } from '@mantine/core';
import { useMemo, useState } from 'react';
import type { AnswerPaper } from '@/core/model/answerPaper';
import { fullName, registerName } from '@/core/model/names';
import type { Student } from '@/core/model/people';
import type { Scan } from '@/core/model/scan';
import { nameRect, pageSize } from '@/core/intake/paper/sheet';
import { copyKey, notReadByCopy } from '@/core/intake/paper/notReadByCopy';
import { inRegister, withoutPaper } from '@/core/intake/paper/withoutPaper';
import { scansOf } from '@/core/intake/paper/paperAttempt';
import type { OnPaper } from '@/store/onPaper';
import { nameCopies, nameCopy, takeScanBack, throwOut } from '@/store/scans';
import { act } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { thisTab } from '@/desk/undoLast';
import { isoNow } from '@/ui/clock';
import { turnScan } from '@/workers/scans';
import { counted } from '@/words/format';
import { fromWords } from '@/words/onPaper';
import { PagePart } from '../kinds/PaperPictures';
import { PlacePage } from './PlacePage';
import styles from './onPaper.module.css';

/** So many papers are asked about at a time. */
const askedAtOnce = 8;

/** Where the focus goes once nothing is left to look at. */
export const papersHeading = 'papers-scanned';

interface CopiesTableProps {
  sitting: SittingData;
  on: OnPaper;
}

interface Copy {
  print: AnswerPaper;
  number: number;
  pages: ReadonlyMap<number, readonly Scan[]>;
}

/** Every paper that was printed, with its pages that are here. */
export function CopiesTable({ sitting, on }: CopiesTableProps) {
  const [open, setOpen] = useState<string | null>(null);
  const copies = useMemo(
    () =>
      on.prints.flatMap((print) =>
        print.copies.map((_, index): Copy => ({
          print,
          number: index + 1,
          pages: scansOf(print, index + 1, on.scans),
        })),
      ),
    [on],
  );
  const here = copies.filter(({ pages }) => pages.size > 0);
  // A field with the whole class behind it is heavy: the next ones come as these are named.
  const asking = new Set(
    here
      .filter(({ print, number }) => print.copies[number - 1] === null)
      .slice(0, askedAtOnce)
      .map(({ print, number }) => copyKey(print.id, number)),
  );
  const unread = useMemo(() => notReadByCopy(sitting.questions, sitting.seats), [sitting]);
  return (
    <section aria-label="Papers">
      <h2 id={papersHeading} tabIndex={-1} className={styles.heading}>
        {here.length} of {counted(copies.length, 'paper')} scanned
      </h2>
      <InOrder copies={here} sitting={sitting} on={on} />
      <div className={styles.scroller}>
        <table className={styles.table}>
          <thead>
            <tr>
              <th scope="col" className={styles.figure}>
                Paper
              </th>
              <th scope="col">Student</th>
              <th scope="col">Pages</th>
              <th scope="col">Answers</th>
              <th scope="col" />
            </tr>
          </thead>
          <tbody>
            {copies.map((copy) => {
              const id = copyKey(copy.print.id, copy.number);
              return (
                <CopyRow
                  key={id}
                  copy={copy}
                  sitting={sitting}
                  on={on}
                  unread={unread.get(id) ?? null}
                  asks={asking.has(id)}
                  open={open === id}
                  toggle={() => setOpen(open === id ? null : id)}
                />
              );
            })}
          </tbody>
        </table>
      </div>
      <BlankSheets on={on} />
    </section>
  );
}

/** Names all papers at once that lie in the order of the register. */
function InOrder({ copies, sitting, on }: CopiesTableProps & { copies: readonly Copy[] }) {
  const left = leftIn(sitting, on).filter(inRegister);
  const named = copies
    .filter(({ print, number }) => print.copies[number - 1] === null)
    .flatMap(({ print, number }, at) => {
      const student = left[at];
      return student ? [{ printId: print.id, copy: number, studentId: student.id, student }] : [];
    });
  const [first] = named;
  const last = named.at(-1);
  if (!first || !last || named.length < 2) return null;
  return (
    <div className={styles.row}>
      <Button size="compact-sm" onClick={() => void act(nameCopies(sitting.sitting.id, named, isoNow()))}>
        Name {named.length} papers in the order of the register
      </Button>
      <span className={styles.soft}>
        from {registerName(first.student)} to {registerName(last.student)}
      </span>
    </div>
  );
}

/** Who can have written a paper that is nobody's yet. */
const leftIn = (sitting: SittingData, on: OnPaper): Student[] =>
  withoutPaper(
    on.prints,
    sitting.seats.map(({ student }) => student),
  );

interface CopyRowProps extends CopiesTableProps {
  copy: Copy;
  /** How many of its answers are not read yet; null: there is no attempt of it. */
  unread: number | null;
  /** Whether whose it is is asked now. */
  asks: boolean;
  open: boolean;
  toggle: () => void;
}

function CopyRow({ copy: { print, number, pages }, sitting, on, unread, asks, open, toggle }: CopyRowProps) {
  const student = on.students.get(print.copies[number - 1] ?? '');
  const all = print.pages.length;
  const missing = print.pages.flatMap((_, index) => (pages.has(index + 1) ? [] : [index + 1]));
  const double = [...pages].filter(([, scans]) => scans.length > 1).map(([page]) => page);
  const said =
    pages.size === 0
      ? 'none yet'
      : [
          missing.length === 0 ? `all ${all}` : `${pages.size} of ${all}, without page ${missing.join(', ')}`,
          ...(double.length > 0 ? [`page ${double.join(', ')} twice`] : []),
        ].join('; ');
  const [first] = pages.get(print.foreign?.name?.page ?? 1) ?? [];
  return (
    <>
      <tr>
        <td className={styles.figure}>
          {on.prints.length > 1 && `${print.name || '–'} `}
          {number}
        </td>
        <td>
          {student ? (
            registerName(student)
          ) : asks ? (
            <WhoseIsIt print={print} number={number} sitting={sitting} on={on} first={first} />
          ) : (
            <span className={styles.soft}>name not known yet</span>
          )}
        </td>
        <td>{said}</td>
        <td>{unread === null ? '' : unread === 0 ? 'all read' : `${unread} not read yet`}</td>
        <td>
          {pages.size > 0 && (
            <Button
              size="compact-sm"
              aria-expanded={open}
              aria-label={`Pages of paper ${number}`}
              onClick={toggle}
            >
              Pages
            </Button>
          )}
        </td>
      </tr>
      {open && (
        <tr>
          <td colSpan={5}>
            {student && <PutRight print={print} number={number} sitting={sitting} on={on} first={first} />}
            <ul className={styles.pages}>
              {[...pages]
                .sort(([a], [b]) => a - b)
                .flatMap(([page, scans]) =>
                  scans.map((scan) => (
                    <li key={scan.id}>
                      <PagePart
                        fileId={scan.picture.id}
                        at={{ x: 0, y: 0, ...pageSize }}
                        label={`Page ${page}`}
                      />
                      <p>
                        Page {page} <span className={styles.soft}>{fromWords(scan.from)}</span>
                      </p>
                      <PlacePage key={`${number} ${page}`} scan={scan} on={on} does="Move" />
                      {print.foreign && (
                        <Button
                          size="compact-sm"
                          aria-label={`Turn page ${page} of paper ${number}`}
                          onClick={() => void act(turnScan(scan.id, thisTab(), isoNow()).result)}
                        >
                          Turn
                        </Button>
                      )}{' '}
                      <Button
                        size="compact-sm"
                        aria-label={`Throw out page ${page} of paper ${number}`}
                        onClick={() => void act(throwOut([scan], isoNow()))}
                      >
                        Throw out
                      </Button>
                    </li>
                  )),
                )}
              {on.scans
                .filter(
                  ({ place, thrownOutAt }) =>
                    thrownOutAt !== undefined && place?.printId === print.id && place.copy === number,
                )
                .map((scan) => (
                  <li key={scan.id} className={styles.soft}>
                    <p>Page {scan.place?.page}, thrown out</p>
                    <Button
                      size="compact-sm"
                      aria-label={`Take back page ${scan.place?.page} of paper ${number}`}
                      onClick={() => void act(takeScanBack(scan, isoNow()))}
                    >
                      Take back
                    </Button>
                  </li>
                ))}
            </ul>
          </td>
        </tr>
      )}
    </>
  );
}

/** Sheets between papers that were left out, to be seen: something may stand on one. */
function BlankSheets({ on }: { on: OnPaper }) {
  const sheets = on.scans.filter(({ pile, place }) => pile === 'between' && place === null);
  if (sheets.length === 0) return null;
  return (
    <details>
      <summary>{counted(sheets.length, 'blank sheet')} left out</summary>
      <ul className={styles.pages}>
        {sheets.map((scan) => (
          <li key={scan.id}>
            <PagePart
              fileId={scan.picture.id}
              at={{ x: 0, y: 0, ...pageSize }}
              label={fromWords(scan.from)}
            />
            <p>{fromWords(scan.from)}</p>
            <PlacePage scan={scan} on={on} does="Read it as that" />
          </li>
        ))}
      </ul>
    </details>
  );
}

/** A paper that was written by another one than it says. */
function PutRight(props: WhoseProps) {
  if (leftIn(props.sitting, props.on).length === 0) return null;
  return (
    <details>
      <summary>Somebody else wrote it</summary>
      <WhoseIsIt {...props} />
    </details>
  );
}

const isNamed = (student: Student, typed: string) =>
  fullName(student).toLocaleLowerCase().includes(typed.trim().toLocaleLowerCase());

/** The list is drawn anew from what is stored. */
const focusMs = 150;

interface WhoseProps extends CopiesTableProps {
  print: AnswerPaper;
  number: number;
  /** The page with the name. */
  first: Scan | undefined;
}

/** The name as it is written, and who it can be. */
function WhoseIsIt({ print, number, sitting, on, first }: WhoseProps) {
  const [typed, setTyped] = useState('');
  const nameAt = print.foreign ? print.foreign.name : nameRect;
  const left = leftIn(sitting, on);
  const name = async (studentId: string) => {
    const fields = () => [...document.querySelectorAll<HTMLElement>('[data-whose]')];
    const at = fields().findIndex((field) => field.getAttribute('aria-label') === `Whose paper ${number} is`);
    const place = { printId: print.id, copy: number };
    await act(nameCopy(sitting.sitting.id, place, studentId, isoNow()));
    // The next one has moved to its place.
    setTimeout(() => fields()[at]?.focus(), focusMs);
  };
  return (
    <div className={styles.whose}>
      {first && nameAt && (
        <PagePart fileId={first.picture.id} at={nameAt} label="The name as it is written" />
      )}
      <Select
        size="xs"
        searchable
        data-whose
        aria-label={`Whose paper ${number} is`}
        placeholder={`Type a few letters: ${counted(left.length, 'student')} left`}
        nothingFoundMessage="Nobody left is called so"
        value={null}
        searchValue={typed}
        onSearchChange={setTyped}
        onKeyDown={(event) => {
          // At once, also where the list is not drawn yet.
          const [first] = typed ? left.filter((student) => isNamed(student, typed)) : [];
          if (event.key !== 'Enter' || !first) return;
          event.preventDefault();
          event.stopPropagation();
          void name(first.id);
        }}
        onChange={(id) => id !== null && void name(id)}
        data={left.map((student) => ({ value: student.id, label: fullName(student) }))}
      />
    </div>
  );
}
