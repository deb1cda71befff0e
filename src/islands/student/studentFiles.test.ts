import 'fake-indexeddb/auto';
import { carrierWith } from '../../../tests/unit/carrier';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { CarriedFile, FileReply } from '@/carriers/Carrier';
import { mostAttemptBytes } from '@/core/basics/fileRules';
import { sitDesk } from '@/store/sitTables';
import { forgetHeld } from './heldAttempts';
import { handOverFiles, studentFiles } from './studentFiles';

const bytes = Uint8Array.of(1, 2, 3);
const photo = { name: 'sheet.jpg', mediaType: 'image/jpeg', bytes };
const place = { joinCode: 'K7M4QX', sittingId: 'sitting1', attemptId: 'attempt1' };

beforeEach(async () => {
  await sitDesk.delete();
  await sitDesk.open();
});

describe('a file put into an answer', () => {
  it('is kept on the device first, and is there while the desk is away', async () => {
    const files = studentFiles(carrierWith({}), place);
    const ref = await files.put(photo);
    expect(ref).toMatchObject({ name: 'sheet.jpg', mediaType: 'image/jpeg', size: 3 });
    expect((await files.get(ref.id))?.bytes).toEqual(bytes);
    await expect(files.get('another')).rejects.toThrow('away');
  });

  it('is put in only while a paper is sat', async () => {
    const home = studentFiles(carrierWith({}), { joinCode: 'K7M4QX', sittingId: 'sitting1' });
    await expect(home.put(photo)).rejects.toThrow(/while sitting the paper/);
  });

  it('is handed over once, and again until it was', async () => {
    let reply: FileReply | Error = new Error('away');
    const handOverFile = vi.fn((..._call: [string, string, CarriedFile]) =>
      reply instanceof Error ? Promise.reject(reply) : Promise.resolve(reply),
    );
    const carrier = carrierWith({ handOverFile });
    const { id } = await studentFiles(carrier, place).put(photo);
    await expect(handOverFiles(carrier, 'K7M4QX', 'attempt1')).rejects.toThrow('away');
    reply = 'kept';
    await handOverFiles(carrier, 'K7M4QX', 'attempt1');
    await handOverFiles(carrier, 'K7M4QX', 'attempt1');
    expect(handOverFile).toHaveBeenCalledTimes(2);
    expect(handOverFile.mock.calls.at(-1)?.[2]).toEqual({ id, size: 3, ...photo });
  });

  it('that is refused is named again and again, asked about once, and holds no answer back', async () => {
    const handOverFile = vi.fn(() => Promise.resolve<FileReply>('tooMuch'));
    const carrier = carrierWith({ handOverFile });
    await studentFiles(carrier, place).put(photo);
    expect(await handOverFiles(carrier, 'K7M4QX', 'attempt1')).toMatchObject([{ name: 'sheet.jpg' }]);
    expect(await handOverFiles(carrier, 'K7M4QX', 'attempt1')).toMatchObject([{ name: 'sheet.jpg' }]);
    expect(handOverFile).toHaveBeenCalledTimes(1);
  });

  it('is refused on the device already when all together are too large', async () => {
    const files = studentFiles(carrierWith({}), place);
    await files.put(photo);
    await sitDesk.files.toCollection().modify({ size: mostAttemptBytes });
    await expect(files.put({ ...photo, bytes: Uint8Array.of(9) })).rejects.toThrow(/too large with/);
  });

  it('of another attempt is left alone, and goes when the attempt is forgotten', async () => {
    const handOverFile = vi.fn(() => Promise.resolve<FileReply>('kept'));
    await studentFiles(carrierWith({}), { ...place, attemptId: 'other' }).put(photo);
    await handOverFiles(carrierWith({ handOverFile }), 'K7M4QX', 'attempt1');
    expect(handOverFile).not.toHaveBeenCalled();
    await forgetHeld('attempt1');
    expect(await sitDesk.files.count()).toBe(1);
    await forgetHeld('other');
    expect(await sitDesk.files.count()).toBe(0);
  });
});
