import { describe, expect, it } from 'vitest';
import { buildDemo } from '@demo/buildDemo';
import { backupFrom, backupText } from './index';

const savedAt = '2026-11-23T10:00:00.000Z';
const tables = buildDemo(Date.parse(savedAt));

const faultIn = (change: (raw: Record<string, never>) => unknown) => {
  const raw = JSON.parse(backupText(tables, savedAt)) as Record<string, never>;
  change(raw);
  const outcome = backupFrom(JSON.stringify(raw));
  return 'fault' in outcome ? outcome.fault : null;
};

describe('a backup of the whole desk', () => {
  it('comes back equal', () => {
    const outcome = backupFrom(backupText(tables, savedAt));
    expect('backup' in outcome && outcome.backup).toEqual({
      format: 'gribbet-desk',
      version: 1,
      savedAt,
      tables,
    });
  });

  it('a file that is not a desk is refused in words of its own', () => {
    expect(backupFrom('PK\u0003\u0004')).toMatchObject({ fault: { code: 'notJson' } });
    expect(backupFrom('{"format":"something else","version":1}')).toEqual({ fault: { code: 'foreign' } });
    expect(backupFrom('[1,2]')).toEqual({ fault: { code: 'foreign' } });
    expect(backupFrom(backupText(tables, savedAt).slice(0, 5000))).toMatchObject({
      fault: { code: 'notJson' },
    });
  });

  it('a newer version is refused before anything in it is read', () => {
    expect(faultIn((raw) => Object.assign(raw, { version: 9, tables: null }))).toEqual({
      code: 'newer',
      version: 9,
    });
  });

  it('damage is named by its place', () => {
    const fault = faultIn((raw) =>
      Object.assign((raw as unknown as { tables: { attempts: object[] } }).tables.attempts[3] ?? {}, {
        startedAt: 'yesterday',
      }),
    );
    expect(fault).toMatchObject({ code: 'damaged', path: 'tables.attempts.3.startedAt' });
  });

  it('a mark for an attempt that is not in the file is named', () => {
    const fault = faultIn((raw) =>
      Object.assign((raw as unknown as { tables: { marks: object[] } }).tables.marks[0] ?? {}, {
        attemptId: 'gone',
      }),
    );
    expect(fault).toMatchObject({ code: 'loose', path: 'tables.marks.0.attemptId' });
  });
});
