import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { buildDemo } from '@demo/buildDemo';
import { base64From } from '../../base64';
import { sha256 } from '../../crypto';
import { backupFrom, backupText, type DeskTables } from './index';

const savedAt = '2026-11-23T10:00:00.000Z';
const tables = buildDemo(Date.parse(savedAt));

type Raw = { version: number; digest?: string; tables: Record<keyof DeskTables, Record<string, unknown>[]> };

/** What is wrong with a file that somebody changed who could make up its digest, too; or with one of before digests. */
async function faultIn(change: (raw: Raw) => unknown, version = 2) {
  const raw = JSON.parse(await backupText(tables, savedAt)) as Raw;
  raw.version = version;
  change(raw);
  const text = new TextEncoder().encode(JSON.stringify([savedAt, raw.tables]));
  if (version > 1) raw.digest = base64From(await sha256(text));
  else delete raw.digest;
  const outcome = await backupFrom(JSON.stringify(raw));
  return 'fault' in outcome ? outcome.fault : null;
}

describe('a backup of the whole desk', () => {
  it('comes back equal', async () => {
    const outcome = await backupFrom(await backupText(tables, savedAt));
    expect('backup' in outcome && outcome.backup).toMatchObject({
      format: 'gribbet-desk',
      version: 2,
      savedAt,
    });
    expect('backup' in outcome && outcome.backup.tables).toEqual(tables);
  });

  it('a file that is not a desk is refused in words of its own', async () => {
    expect(await backupFrom('PK\u0003\u0004')).toMatchObject({ fault: { code: 'notJson' } });
    const foreign = '{"format":"something else","version":1}';
    expect(await backupFrom(foreign)).toEqual({ fault: { code: 'foreign' } });
    expect(await backupFrom('[1,2]')).toEqual({ fault: { code: 'foreign' } });
    const cut = (await backupText(tables, savedAt)).slice(0, 5000);
    expect(await backupFrom(cut)).toMatchObject({ fault: { code: 'notJson' } });
  });

  it('any byte that is another one, and another encoding, is noticed: nothing is taken in that was not saved', async () => {
    const small = { ...tables, attempts: [], marks: [], releases: [], openings: [], requests: [], log: [] };
    const bytes = new TextEncoder().encode(await backupText({ ...small, allowances: [] }, savedAt));
    const whole = await backupFrom(new TextDecoder().decode(bytes));
    const place = fc.record({ at: fc.nat(bytes.length - 1), bit: fc.nat(7) });
    await fc.assert(
      fc.asyncProperty(place, async ({ at, bit }) => {
        const spoilt = bytes.slice();
        spoilt[at] = (spoilt[at] ?? 0) ^ (1 << bit);
        const outcome = await backupFrom(new TextDecoder().decode(spoilt));
        // What is no part of the content (a blank between two words of the file) may differ.
        if ('backup' in outcome) expect(outcome).toEqual(whole);
        else expect(outcome.fault.code).toMatch(/^(notJson|foreign|newer|changed)$/);
      }),
      { numRuns: 300 },
    );
    const latin = new TextDecoder('latin1').decode(bytes);
    expect(await backupFrom(latin)).toMatchObject({ fault: { code: 'changed' } });
  });

  it('a newer version is refused before anything in it is read', async () => {
    const newer = await faultIn((raw) => Object.assign(raw, { version: 9, tables: null }));
    expect(newer).toEqual({ code: 'newer', version: 9 });
  });

  it('damage is named by its place', async () => {
    const fault = await faultIn((raw) =>
      Object.assign(raw.tables.attempts[3] ?? {}, { startedAt: 'yesterday' }),
    );
    expect(fault).toMatchObject({ code: 'damaged', path: 'tables.attempts.3.startedAt' });
  });

  it.each([1, 2])(
    'a mark for an attempt that is not in the file is named, in version %i',
    async (version) => {
      const change = (raw: Raw) => Object.assign(raw.tables.marks[0] ?? {}, { attemptId: 'gone' });
      expect(await faultIn(change, version)).toMatchObject({
        code: 'loose',
        path: 'tables.marks.0.attemptId',
      });
    },
  );

  it('what is there twice is named before anything is put back', async () => {
    const fault = await faultIn((raw) => raw.tables.students.push({ ...raw.tables.students[0] }));
    expect(fault).toMatchObject({ code: 'double', key: tables.students[0]?.id });
    const mark = await faultIn((raw) => raw.tables.marks.push({ ...raw.tables.marks[0] }));
    expect(mark).toMatchObject({ code: 'double', path: `tables.marks.${tables.marks.length}` });
  });

  it('nesting without end is refused in words, and not by a library that runs out of room', async () => {
    const deep = `${'{"content":['.repeat(20_000)}${']}'.repeat(20_000)}`;
    const text = `{"format":"gribbet-desk","version":1,"savedAt":"${savedAt}","tables":${deep}}`;
    expect(await backupFrom(text)).toMatchObject({ fault: { code: 'damaged' } });
  });

  it('of an older desk, what hung on nothing is left behind, and who had opened a result is kept', async () => {
    const raw = JSON.parse(await backupText(tables, savedAt)) as Raw;
    raw.version = 1;
    delete raw.digest;
    raw.tables.outbox.push({
      ...{ id: 'm1', sittingId: 'gone', studentId: 'gone', email: '', subject: '', text: '', at: savedAt },
    });
    const [first] = raw.tables.releases;
    if (first) first.openedAt = [savedAt];
    Reflect.deleteProperty(raw.tables, 'openings');
    const outcome = await backupFrom(JSON.stringify(raw));
    const read = 'backup' in outcome ? outcome.backup.tables : null;
    expect(read?.outbox).toEqual(tables.outbox);
    expect(read?.openings).toEqual([
      { sittingId: first?.sittingId, studentId: first?.studentId, at: [savedAt] },
    ]);
  });
});
