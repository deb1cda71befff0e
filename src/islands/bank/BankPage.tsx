import { Button, NativeSelect, TextInput } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo, useState } from 'react';
import { filteredRows, type BankFilter, type BankRow } from '@/core/bank/bankRows';
import { kindNamed, kindNames, kindOf } from '@/core/kinds';
import type { Paper } from '@/core/model/paper';
import { plainText } from '@/core/model/richText';
import { bankList, putIntoBank, takeIntoPaper, takeOutOfBank } from '@/store/bank';
import { desk } from '@/store/tables';
import { isoNow, useNow } from '@/ui/clock';
import { act } from '@/ui/desk/act';
import { DeskReady } from '@/ui/desk/DeskReady';
import { EmptyState } from '@/ui/EmptyState';
import { counted, dayAlone, dayAndTime, percent, points } from '@/ui/format';
import { Rich } from '@/ui/Rich';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { VirtualRows } from '@/ui/VirtualRows';
import styles from './bank.module.css';

/** All questions there are: of the bank, and of every paper. */
export function BankPage() {
  return (
    <DeskReady>
      <Bank />
    </DeskReady>
  );
}

const nothingAsked: BankFilter = { words: '', tag: '', kind: '', where: 'all', order: 'words' };

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
      <EmptyState title="No questions yet" action={<a href="/?new=1">Write a paper</a>}>
        Every question of every paper is listed here, to be found again and used in another.
      </EmptyState>
    );
  const open = rows.find((row) => row.id === openId);
  return (
    <TwoColumns
      marginLabel="About the question"
      margin={
        open ? (
          <OpenRow key={open.id} row={open} papers={papers} now={now} moved={setOpenId} />
        ) : (
          <MarginBlock title="No question chosen">
            <p className={styles.soft}>
              Choose one to see its key, where it is used, and to take it into a paper.
            </p>
          </MarginBlock>
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
      <Filter rows={rows} filter={filter} change={setFilter} />
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
                Tells apart
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
      {found.length === 0 && <p>No question has that.</p>}
    </TwoColumns>
  );
}

interface FilterProps {
  rows: BankRow[];
  filter: BankFilter;
  change: (filter: BankFilter) => void;
}

function Filter({ rows, filter, change }: FilterProps) {
  const tags = [...new Set(rows.flatMap((row) => row.question.tags))].sort((a, b) => a.localeCompare(b));
  const wheres: [BankFilter['where'], string][] = [
    ['all', 'in the bank and in papers'],
    ['bank', 'in the bank'],
    ['neverUsed', 'never used'],
  ];
  const orders: [BankFilter['order'], string][] = [
    ['words', 'by its words'],
    ['facility', 'hardest first'],
    ['lastUsed', 'longest unused first'],
    ['points', 'by points'],
  ];
  return (
    <div className={styles.filter} role="search">
      <TextInput
        size="sm"
        aria-label="Words in the question, its key or its tags"
        placeholder="Words in the question, its key or its tags"
        value={filter.words}
        onChange={(event) => change({ ...filter, words: event.currentTarget.value })}
      />
      <NativeSelect
        size="sm"
        aria-label="Tag"
        value={filter.tag}
        data={[{ value: '', label: 'any tag' }, ...tags.map((tag) => ({ value: tag, label: tag }))]}
        onChange={(event) => change({ ...filter, tag: event.currentTarget.value })}
      />
      <NativeSelect
        size="sm"
        aria-label="Kind"
        value={filter.kind}
        data={[
          { value: '', label: 'any kind' },
          ...kindNames.map((name) => ({ value: name, label: kindNamed(name).label })),
        ]}
        onChange={(event) => {
          const kind = kindNames.find((name) => name === event.currentTarget.value) ?? '';
          change({ ...filter, kind });
        }}
      />
      <NativeSelect
        size="sm"
        aria-label="Where"
        value={filter.where}
        data={wheres.map(([value, label]) => ({ value, label }))}
        onChange={(event) => {
          const where = wheres.find(([value]) => value === event.currentTarget.value)?.[0] ?? 'all';
          change({ ...filter, where });
        }}
      />
      <NativeSelect
        size="sm"
        aria-label="Order"
        value={filter.order}
        data={orders.map(([value, label]) => ({ value, label }))}
        onChange={(event) => {
          const order = orders.find(([value]) => value === event.currentTarget.value)?.[0] ?? 'words';
          change({ ...filter, order });
        }}
      />
    </div>
  );
}

interface OpenRowProps {
  row: BankRow;
  papers: Paper[];
  now: number;
  /** Called with the id that the question has from now on. */
  moved: (id: string | null) => void;
}

function OpenRow({ row, papers, now, moved }: OpenRowProps) {
  const { question, entry, uses, record } = row;
  const [paperId, setPaperId] = useState(
    papers.find((paper) => uses.every((use) => use.paperId !== paper.id))?.id ?? '',
  );
  const [use] = uses;
  const putIn = async () => {
    const put = use && (await act(putIntoBank(use.paperId, use.questionId, isoNow())));
    if (put) moved(put.result);
  };
  const takeIn = async () => {
    const linked = uses[0]?.questionId;
    if (!(await act(takeIntoPaper(row, paperId, isoNow())))) return;
    // A question of a paper alone is in the bank from now on, under another id.
    const fresh = (await desk.papers.get(uses[0]?.paperId ?? ''))?.questions.find(
      (each) => each.id === linked,
    );
    moved(entry?.id ?? fresh?.bankId ?? null);
  };
  return (
    <>
      <MarginBlock title={`${kindOf(question).label}, ${counted(question.points, 'point')}`}>
        <div>
          <Rich text={question.stem} />
        </div>
        <p className="keepLines">{kindOf(question).keyText(question) || 'no key yet'}</p>
        {question.tags.length > 0 && <p className={styles.soft}>{question.tags.join(', ')}</p>}
      </MarginBlock>
      <MarginBlock title={uses.length === 0 ? 'In no paper' : `In ${counted(uses.length, 'paper')}`}>
        <ul className={styles.uses}>
          {uses.map((each) => (
            <li key={each.questionId}>
              <a href={`/papers/${each.paperId}`}>{each.title || 'paper without a title'}</a>
              {!each.same && <span className={styles.soft}> changed since</span>}
            </li>
          ))}
        </ul>
        {record && (
          <p className={styles.soft}>
            {counted(record.scored, 'answer')} with points in the sitting of {dayAndTime(record.opensAt, now)}
            .
          </p>
        )}
      </MarginBlock>
      <MarginBlock title="Use it">
        <NativeSelect
          size="sm"
          aria-label="Paper to take it into"
          value={paperId}
          data={[
            { value: '', label: 'choose a paper' },
            ...papers.map(({ id, title }) => ({ value: id, label: title || 'paper without a title' })),
          ]}
          onChange={(event) => setPaperId(event.currentTarget.value)}
        />
        <Button variant="filled" disabled={!paperId} onClick={() => void takeIn()}>
          Take it into this paper
        </Button>
        <p className={styles.soft}>It comes at the end, linked: changes there and here can be passed on.</p>
        {entry === null ? (
          <Button onClick={() => void putIn()}>Put it into the bank</Button>
        ) : (
          <Button
            onClick={() => {
              void act(takeOutOfBank(entry.id, isoNow()));
              moved(null);
            }}
          >
            Take it out of the bank
          </Button>
        )}
      </MarginBlock>
    </>
  );
}
