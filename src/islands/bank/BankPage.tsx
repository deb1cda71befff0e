import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo, useState } from 'react';
import { filteredRows, type BankFilter } from '@/core/bank/bankRows';
import { kindOf } from '@/core/kinds';
import { plainText } from '@/core/basics/richWords';
import { bankList } from '@/store/bank';
import { desk } from '@/store/tables';
import { useNow } from '@/ui/clock';
import { DeskReady } from '@/desk/DeskReady';
import { EmptyState } from '@/ui/EmptyState';
import { counted, dayAlone, percent, points } from '@/words/format';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { VirtualRows } from '@/ui/VirtualRows';
import { BankFilters } from './BankFilters';
import { NewBankQuestion, OpenRow } from './BankMargin';
import styles from './bank.module.css';

/** All questions there are: of the bank, and of every paper. */
export function BankPage() {
  return (
    <DeskReady>
      <Bank />
    </DeskReady>
  );
}

const nothingAsked: BankFilter = {
  words: '',
  tag: '',
  kind: '',
  where: 'all',
  points: null,
  facility: '',
  discrimination: '',
  order: 'words',
};

function Bank() {
  const now = useNow(60_000);
  const rows = useLiveQuery(() => bankList(Date.now()), [now]);
  const papers = useLiveQuery(() => desk.papers.orderBy('changedAt').reverse().toArray());
  const [filter, setFilter] = useState(nothingAsked);
  const [openId, setOpenId] = useState<string | null>(null);
  const found = useMemo(() => filteredRows(rows ?? [], filter), [rows, filter]);
  if (!rows || !papers) return null;
  if (rows.length === 0)
    return (
      <TwoColumns marginLabel="About the bank" margin={<NewBankQuestion />}>
        <EmptyState title="No questions yet" action={<a href="/?new=1">Write a paper</a>}>
          Every question from every paper is listed here, so you can find it and use it again.
        </EmptyState>
      </TwoColumns>
    );
  const open = rows.find((row) => row.id === openId);
  return (
    <TwoColumns
      marginLabel="About the question"
      margin={
        open ? (
          <OpenRow key={open.id} row={open} papers={papers} now={now} moved={setOpenId} />
        ) : (
          <>
            <MarginBlock title="No question selected">
              <p className={styles.soft}>
                Select one to see its key and where it is used, and to add it to a paper.
              </p>
            </MarginBlock>
            <NewBankQuestion />
          </>
        )
      }
    >
      <div className={styles.head}>
        <h1>Bank</h1>
        <span className={styles.soft}>
          {found.length === rows.length
            ? counted(rows.length, 'question')
            : `${found.length} of ${counted(rows.length, 'question')}`}
        </span>
      </div>
      <BankFilters rows={rows} filter={filter} change={setFilter} />
      <div data-scroller className={styles.scroller} role="region" aria-label="Questions" tabIndex={0}>
        <table className={styles.table}>
          <thead>
            <tr>
              <th scope="col">Question</th>
              <th scope="col">Kind</th>
              <th scope="col" className={styles.figure}>
                Points
              </th>
              <th scope="col" className={styles.figure}>
                Facility
              </th>
              <th scope="col" className={styles.figure}>
                Discrimination
              </th>
              <th scope="col">Last used</th>
            </tr>
          </thead>
          <VirtualRows rows={found} height={37}>
            {(row) => (
              <tr key={row.id} data-current={row.id === openId}>
                <td>
                  <button type="button" className={styles.question} onClick={() => setOpenId(row.id)}>
                    {plainText(row.question.stem) || 'No text yet'}
                  </button>
                </td>
                <td className={styles.soft}>{kindOf(row.question).label}</td>
                <td className={styles.figure}>{points(row.question.points)}</td>
                <td className={styles.figure}>
                  {row.record?.facility == null ? '' : percent(row.record.facility)}
                </td>
                <td className={styles.figure}>
                  {row.record?.discrimination == null ? '' : points(row.record.discrimination)}
                </td>
                <td className={styles.soft}>{row.lastUsed ? dayAlone(row.lastUsed) : 'never'}</td>
              </tr>
            )}
          </VirtualRows>
        </table>
      </div>
      {found.length === 0 && <p>No questions match.</p>}
    </TwoColumns>
  );
}
