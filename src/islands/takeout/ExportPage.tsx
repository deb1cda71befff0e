import { NativeSelect } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo, useState } from 'react';
import { arrangedTable } from '@/core/formats/takeout/exportTable';
import { isGuest } from '@/core/model/names';
import { act } from '@/desk/act';
import { SittingPage } from '@/desk/SittingPage';
import type { SittingData } from '@/desk/useSitting';
import { exportForm, setExportForm, type ExportForm } from '@/store/exportForms';
import { useAtOnce } from '@/ui/useAtOnce';
import { GroupSelect } from '@/ui/GroupSelect';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { counted } from '@/words/format';
import { ColumnsChoice } from './ColumnsChoice';
import { RegisterOut } from './RegisterOut';
import { SaveTable } from './SaveTable';
import { ScriptsOut } from './ScriptsOut';
import { exportKinds, kindWords, useExportTable, type ExportKind } from './useExportTable';
import styles from './takeout.module.css';

/** What of a sitting is taken out, and as what. */
export function ExportPage({ sittingId }: { sittingId: string }) {
  return (
    <SittingPage sittingId={sittingId} current="handBack">
      {(sitting) => <Export sitting={sitting} />}
    </SittingPage>
  );
}

/** So many rows are shown before it is saved. */
const previewRows = 20;
const nothingChosen: ExportForm = { order: [], left: [], as: 'xlsx' };

type What = ExportKind | 'scripts' | 'register';
const asked = (): What => {
  const what = new URLSearchParams(window.location.search).get('what');
  return what === 'scripts' || what === 'register'
    ? what
    : (exportKinds.find((kind) => kind === what) ?? 'grades');
};

function Export({ sitting }: { sitting: SittingData }) {
  const [what, setWhat] = useState(asked);
  const [group, setGroup] = useState('');
  const id = sitting.sitting.id;
  const choice = (
    <MarginBlock title="Export">
      <div className={styles.fields}>
        <NativeSelect
          label="What"
          size="sm"
          value={what}
          data={[
            ...exportKinds.map((kind) => ({ value: kind, label: kindWords[kind].title })),
            { value: 'scripts', label: 'Marked scripts (PDF)' },
            { value: 'register', label: 'Results for a register (OneRoster)' },
          ]}
          onChange={(event) => setWhat(event.currentTarget.value as What)}
        />
        <GroupSelect
          groups={sitting.groups}
          guests={sitting.seats.some((seat) => isGuest(seat.student))}
          value={group}
          choose={setGroup}
        />
      </div>
    </MarginBlock>
  );
  const elsewhere = (
    <MarginBlock title="Elsewhere">
      <p>
        <a href={`/sittings/${id}/report`}>Report as PDF</a>
      </p>
      <p>
        <a href="/backup">The whole desk</a>
      </p>
      <p>
        <a href={`/sittings/${id}/hand-back`}>Hand back</a>
      </p>
    </MarginBlock>
  );
  if (what === 'register')
    return <RegisterOut sitting={sitting} group={group} choice={choice} elsewhere={elsewhere} />;
  return what === 'scripts' ? (
    <ScriptsOut sitting={sitting} group={group} choice={choice} elsewhere={elsewhere} />
  ) : (
    <TableOut key={what} sitting={sitting} what={what} group={group} choice={choice} elsewhere={elsewhere} />
  );
}

interface TableOutProps {
  sitting: SittingData;
  what: ExportKind;
  group: string;
  choice: React.ReactNode;
  elsewhere: React.ReactNode;
}

function TableOut({ sitting, what, group, choice, elsewhere }: TableOutProps) {
  const table = useExportTable(sitting, what, group);
  const kept = useLiveQuery(() => exportForm(what), [what]);
  const [form, setForm] = useAtOnce(kept ?? nothingChosen);
  const arranged = useMemo(() => arrangedTable(table, form), [table, form]);
  const { title, about } = kindWords[what];
  const change = (part: Partial<ExportForm>) => {
    setForm({ ...form, ...part }, act(setExportForm(what, { ...form, ...part })));
  };
  return (
    <TwoColumns
      marginLabel="What is exported"
      margin={
        <>
          {choice}
          <SaveTable
            table={arranged}
            name={`${title} ${sitting.sitting.title}`}
            form={form}
            change={change}
          />
          <ColumnsChoice table={table} form={form} change={change} />
          {elsewhere}
        </>
      }
    >
      <p className={styles.about}>
        {about} {counted(arranged.rows.length, 'row')}, {counted(arranged.columns.length, 'column')}
        {arranged.rows.length > previewRows && `; the first ${previewRows} are shown`}.
      </p>
      <div className={styles.scroller} role="region" aria-label={`Preview of ${title}`} tabIndex={0}>
        <table className={styles.table}>
          <thead>
            <tr>
              {arranged.columns.map(({ id, title: heading }) => (
                <th key={id} scope="col">
                  {heading}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {arranged.rows.slice(0, previewRows).map((row, index) => (
              <tr key={index}>
                {row.map((cell, column) => (
                  <td key={column} className={typeof cell === 'number' ? styles.figure : undefined}>
                    {cell}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </TwoColumns>
  );
}
