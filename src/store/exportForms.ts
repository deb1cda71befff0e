import { z } from 'zod';
import type { CsvForm } from '@/core/formats/csv/table';
import type { Arrangement } from '@/core/formats/takeout/exportTable';
import { desk } from './tables';

/** How a kind of table was taken out last: what of it, and as what. */
const ExportForm = z.object({
  order: z.string().array().max(400),
  left: z.string().array().max(400),
  as: z.enum(['csv', 'xlsx', 'ods']),
});
export type ExportForm = z.infer<typeof ExportForm> & Arrangement;

const StoredCsv = z.object({
  separator: z.enum([',', ';', '\t']),
  decimal: z.enum(['.', ',']),
  mark: z.boolean(),
  guard: z.boolean(),
});

const formKey = (what: string) => `export ${what}`;
const csvKey = 'export csv';

/** The form of a kind of table as it was kept; null where it was not. */
export async function exportForm(what: string): Promise<ExportForm | null> {
  const row = await desk.settings.get(formKey(what));
  return ExportForm.nullable()
    .catch(null)
    .parse(row?.value ?? null);
}

export async function setExportForm(what: string, form: ExportForm): Promise<void> {
  await desk.settings.put({ key: formKey(what), value: ExportForm.parse(form) });
}

/** How separated text is written for this desk; null where nobody said. */
export async function csvForm(): Promise<CsvForm | null> {
  const row = await desk.settings.get(csvKey);
  return StoredCsv.nullable()
    .catch(null)
    .parse(row?.value ?? null);
}

export async function setCsvForm(form: CsvForm): Promise<void> {
  await desk.settings.put({ key: csvKey, value: StoredCsv.parse(form) });
}

const registerKey = (sittingId: string) => `register ${sittingId}`;

/** Each result as the register took it last, by its id there; empty where none was sent. */
export async function sentToRegister(sittingId: string): Promise<ReadonlyMap<string, string>> {
  const row = await desk.settings.get(registerKey(sittingId));
  return new Map(Object.entries(z.record(z.string(), z.string()).catch({}).parse(row?.value)));
}

export async function setSentToRegister(sittingId: string, sent: ReadonlyMap<string, string>): Promise<void> {
  await desk.settings.put({ key: registerKey(sittingId), value: Object.fromEntries(sent) });
}
