import { Button, Checkbox, NativeSelect, Radio } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo } from 'react';
import { guarded } from '@/core/formats/csv/guard';
import { csvFrom, usualCsv, type CsvForm } from '@/core/formats/csv/table';
import { fileNameOf } from '@/core/formats/fileName';
import { withHeading, type ExportTable } from '@/core/formats/takeout/exportTable';
import { act, say } from '@/desk/act';
import { csvForm, setCsvForm, type ExportForm } from '@/store/exportForms';
import { useAtOnce } from '@/ui/useAtOnce';
import { saveFile } from '@/ui/saveFile';
import { MarginBlock } from '@/ui/TwoColumns';
import { counted } from '@/words/format';
import { workbookOf } from '@/workers/readSheet';
import { useKeptUp } from './useKeptUp';
import styles from './takeout.module.css';

interface SaveTableProps {
  table: ExportTable;
  /** What the file is called, without its ending. */
  name: string;
  form: ExportForm;
  change: (part: Partial<ExportForm>) => void;
}

const mediaTypes = {
  csv: 'text/csv;charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  ods: 'application/vnd.oasis.opendocument.spreadsheet',
};

/** How the reader's own spreadsheet has numbers: where the comma is in them, it can't part the cells. */
export function readersCsv(language: string): CsvForm {
  const decimal = new Intl.NumberFormat(language)
    .formatToParts(1.5)
    .find(({ type }) => type === 'decimal')?.value;
  return decimal === ',' ? { ...usualCsv, separator: ';', decimal: ',' } : usualCsv;
}

/** As which file the table is saved, and the button that does it. */
export function SaveTable({ table, name, form, change }: SaveTableProps) {
  const keptCsv = useLiveQuery(csvForm);
  const readers = useMemo(() => readersCsv(navigator.language), []);
  const [csv, setCsv] = useAtOnce(keptCsv ?? readers);
  const rows = useMemo(() => withHeading(table), [table]);
  const file = `${fileNameOf(name)}.${form.as}`;
  const bytes = async () =>
    form.as === 'csv' ? new TextEncoder().encode(csvFrom(rows, csv)) : workbookOf(rows, name, form.as).result;
  const save = async () => {
    const made = await act(bytes());
    if (!made) return;
    saveFile(file, mediaTypes[form.as], made);
    say(`${counted(table.rows.length, 'row')} saved as ${file}`);
  };
  const keptUp = useKeptUp(file, mediaTypes[form.as], bytes, rows);
  return (
    <MarginBlock title="As a file">
      <div className={styles.fields}>
        <Radio.Group
          aria-label="As"
          value={form.as}
          onChange={(as) => change({ as: as as ExportForm['as'] })}
        >
          <div className={styles.row}>
            <Radio size="sm" value="xlsx" label="XLSX" />
            <Radio size="sm" value="ods" label="ODS" />
            <Radio size="sm" value="csv" label="CSV" />
          </div>
        </Radio.Group>
        {form.as === 'csv' && <CsvFields csv={csv} setCsv={setCsv} rows={rows} />}
        <Button variant="filled" disabled={table.rows.length === 0} onClick={() => void save()}>
          Save {counted(table.rows.length, 'row')} as {form.as.toUpperCase()}
        </Button>
        {keptUp.can && (
          <Checkbox
            size="sm"
            label="Keep one file up to date while this page is open"
            description={keptUp.words}
            checked={keptUp.on}
            onChange={(event) => void act(event.currentTarget.checked ? keptUp.begin() : keptUp.end())}
          />
        )}
      </div>
    </MarginBlock>
  );
}

interface CsvFieldsProps {
  csv: CsvForm;
  setCsv: (csv: CsvForm, writing?: Promise<unknown>) => void;
  rows: ReturnType<typeof withHeading>;
}

function CsvFields({ csv, setCsv, rows }: CsvFieldsProps) {
  const set = (part: Partial<CsvForm>) => {
    setCsv({ ...csv, ...part }, act(setCsvForm({ ...csv, ...part })));
  };
  const guards = useMemo(
    () => rows.flat().filter((cell) => typeof cell === 'string' && guarded(cell) !== cell).length,
    [rows],
  );
  return (
    <>
      <NativeSelect
        label="Between cells"
        size="sm"
        value={csv.separator}
        data={[
          { value: ',', label: 'comma' },
          { value: ';', label: 'semicolon' },
          { value: '\t', label: 'tab' },
        ]}
        onChange={(event) => set({ separator: event.currentTarget.value as CsvForm['separator'] })}
      />
      <NativeSelect
        label="Numbers"
        size="sm"
        value={csv.decimal}
        data={[
          { value: '.', label: '1.5' },
          { value: ',', label: '1,5' },
        ]}
        onChange={(event) => set({ decimal: event.currentTarget.value as CsvForm['decimal'] })}
      />
      <Checkbox
        size="sm"
        label="With a byte order mark (if accents look wrong)"
        checked={csv.mark}
        onChange={(event) => set({ mark: event.currentTarget.checked })}
      />
      <Checkbox
        size="sm"
        label="For a spreadsheet"
        description={
          csv.guard
            ? `${guards === 0 ? 'No cell needs' : `${counted(guards, 'cell')} ${guards === 1 ? 'gets' : 'get'}`} an apostrophe in front, so that a spreadsheet neither runs nor changes it. XLSX and ODS need none.`
            : 'Every cell is written as it is: a spreadsheet could run or change some.'
        }
        checked={csv.guard}
        onChange={(event) => set({ guard: event.currentTarget.checked })}
      />
    </>
  );
}
