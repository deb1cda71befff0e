import { createDecipheriv, createHash, pbkdf2Sync } from 'node:crypto';
import { inflateSync } from 'node:zlib';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { assetId } from '../../basics/assetBytes';
import {
  copiesToDrop,
  copyKey,
  copyName,
  copyNamed,
  filePartId,
  openedPart,
  sealedPart,
  partId,
  textOfPart,
  textPart,
} from './copies';
import { copyDue } from './copyDue';

const now = '2026-11-26T12:00:00.000Z';
const ago = (minutes: number) => new Date(Date.parse(now) - minutes * 60_000).toISOString();

describe('copies that keep themselves', () => {
  it('of one every two minutes for a month, the newest, one an hour and one a day are kept', () => {
    let kept: string[] = [];
    for (let minutes = 30 * 24 * 60; minutes >= 0; minutes -= 2) {
      const at = ago(minutes);
      kept.push(at);
      const gone = new Set(copiesToDrop(kept, at));
      kept = kept.filter((each) => !gone.has(each));
    }
    expect(kept.length).toBeLessThanOrEqual(24);
    expect(kept.at(-1)).toBe(now);
    expect(kept.at(-2)).toBe(ago(2));
    // One of each day of the last fourteen.
    expect(new Set(kept.map((at) => at.slice(0, 10))).size).toBe(14);
  });

  it('the newest are kept however old they are, and each is kept once', () => {
    const minutes = fc.uniqueArray(fc.nat(60 * 24 * 60), { maxLength: 60 });
    fc.assert(
      fc.property(minutes, (all) => {
        const copies = all.map(ago);
        const gone = copiesToDrop(copies, now);
        const newest = [...copies].sort().slice(-4);
        expect(gone.filter((at) => newest.includes(at))).toEqual([]);
        expect(copies.length - gone.length).toBeLessThanOrEqual(24);
        expect(gone.every((at) => copies.includes(at))).toBe(true);
      }),
    );
  });

  it('none of before somebody was forgotten is kept, and the one that was just made is', () => {
    expect(copiesToDrop([ago(0), ago(1), ago(2), ago(3)], now, ago(1.5))).toEqual([ago(2), ago(3)]);
    // Names have whole seconds.
    expect(copiesToDrop([now, ago(2)], now, '2026-11-26T12:00:00.400Z')).toEqual([ago(2)]);
    const minutes = fc.uniqueArray(fc.nat(60 * 24 * 60), { minLength: 1, maxLength: 60 });
    fc.assert(
      fc.property(minutes, fc.nat(60 * 24 * 60), (all, since) => {
        const [newest, ...older] = all.map(ago).sort().reverse();
        const gone = copiesToDrop([...older, newest ?? ''], now, ago(since));
        expect(older.filter((at) => at < ago(since) && !gone.includes(at))).toEqual([]);
        expect(gone).not.toContain(newest);
        // Otherwise the same as without.
        const without = copiesToDrop([...older, newest ?? ''], now);
        expect(gone.filter((at) => at >= ago(since))).toEqual(without.filter((at) => at >= ago(since)));
      }),
    );
  });

  it('a name tells of which desk it is and when it was made, and nothing else is taken for one', () => {
    expect(copyName('abc123', now)).toBe('gribbet-desk-abc123-2026-11-26T120000Z.zip');
    expect(copyNamed(copyName('abc123', now))).toEqual({ deskId: 'abc123', at: now });
    expect(copyNamed('gribbet-desk-2026-11-26T1200.zip')).toBeNull();
    expect(copyNamed('holiday.zip')).toBeNull();
  });
});

describe('when a copy is made', () => {
  it('a change is in one two minutes later, however much changes meanwhile', () => {
    expect(copyDue(null, { at: 0, tookMs: 10 })).toBeNull();
    expect(copyDue(1_000_000, null)).toBe(1_120_000);
    expect(copyDue(1_000_000, { at: 1_000_000, tookMs: 50 })).toBe(1_120_000);
  });

  it('one that takes long rests for longer, so that it takes a twentieth of the time at most', () => {
    expect(copyDue(1_000_000, { at: 1_000_000, tookMs: 30_000 })).toBe(1_600_000);
  });
});

describe('a sealed copy', () => {
  const key = (secret: string) => copyKey(secret, new Uint8Array(16));

  it('has the same name and bytes for the same content, and opens with its secret alone', async () => {
    const [mine, other] = [await key('tide tables'), await key('other tables')];
    const texts = ['high water', 'low water', 'slack water'];
    const partsOf = (by: Uint8Array) => Promise.all(texts.map((each) => textPart(by, each)));
    const [parts, again] = [await partsOf(mine), await partsOf(mine)];
    expect(again.map(({ id }) => id)).toEqual(parts.map(({ id }) => id));
    const opened: string[] = [];
    for (const part of parts) {
      const sealed = await sealedPart(mine, part);
      expect(await openedPart(other, part.id, sealed)).toBeNull();
      expect(
        await openedPart(
          mine,
          parts[0]?.id === part.id ? (parts[1]?.id ?? '') : (parts[0]?.id ?? ''),
          sealed,
        ),
      ).toBeNull();
      opened.push(textOfPart((await openedPart(mine, part.id, sealed)) ?? new Uint8Array()));
    }
    expect(opened).toEqual(texts);
    expect((await partsOf(other)).map(({ id }) => id)).not.toEqual(parts.map(({ id }) => id));
  });

  it('names a file by its id as by its bytes, so that it need not be read', async () => {
    const bytes = new TextEncoder().encode('a chart');
    const mine = await key('tide tables');
    const digest = createHash('sha256').update(bytes).digest();
    expect(await filePartId(mine, await assetId(bytes))).toBe(await partId(mine, digest));
  });

  it('is sealed by the standard: opened by another implementation (Node’s OpenSSL)', async () => {
    const mine = await key('tide tables');
    expect(Buffer.from(mine)).toEqual(pbkdf2Sync('tide tables', Buffer.alloc(16), 600_000, 32, 'sha256'));
    const part = await textPart(mine, 'a chart');
    const sealed = Buffer.from(await sealedPart(mine, part));
    const hash = (...all: (string | Uint8Array)[]) => {
      const each = createHash('sha256');
      for (const piece of all) each.update(piece);
      return each.digest();
    };
    const nonce = hash(mine, 'nonce', part.id).subarray(0, 12);
    const opening = createDecipheriv('aes-256-gcm', mine, nonce).setAuthTag(sealed.subarray(-16));
    const packed = Buffer.concat([opening.update(sealed.subarray(0, -16)), opening.final()]);
    expect(inflateSync(packed).toString()).toBe('a chart');
  });
});
