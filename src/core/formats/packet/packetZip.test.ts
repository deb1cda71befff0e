import { unzipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { paper } from '../../../../tests/unit/classroom';
import { sittingOf, studentOf } from '../../../../tests/unit/samples';
import { paperFile } from '../../exchange/carriedFiles';
import { readPacket, unsealedPacket } from './packetFile';
import { packetZip, sealedText, type PacketFor, type SealWith } from './packetZip';

let chances = 0;
const chance = (length: number) => Uint8Array.from({ length }, () => (chances += 7) % 256);
const first = studentOf({ id: 's1', familyName: 'Nguyễn', givenName: 'Linh', joinCode: 'K7M4QX' });
const second = studentOf({ id: 's2', familyName: 'Nguyễn', givenName: 'Linh', joinCode: 'P2R8TW' });
const packetFor = (student: PacketFor['student']): PacketFor => ({
  student,
  packet: { kind: 'paper', content: paperFile(sittingOf(), paper, [], student) },
});

async function opened(seal: SealWith) {
  const told: number[] = [];
  const zip = await packetZip([first, second].map(packetFor), 'Quiz 1: tides', seal, chance, (done) =>
    told.push(done),
  );
  expect(told).toEqual([1, 2]);
  return Object.entries(unzipSync(zip));
}

describe('packets for a class as one zip', () => {
  it('one file for each, though two have the same name', async () => {
    const files = await opened(null);
    expect(files.map(([name]) => name)).toEqual([
      'Nguyễn-Linh-Quiz-1-tides.json',
      'Nguyễn-Linh-Quiz-1-tides-2.json',
    ]);
    for (const [index, [, bytes]] of files.entries())
      expect(await readPacket(bytes)).toMatchObject({
        packet: { content: { student: { id: [first, second][index]?.id } } },
        changed: false,
      });
  });

  it('each opens with the join code of its student alone', async () => {
    const reads = await Promise.all((await opened('joinCodes')).map(async ([, bytes]) => readPacket(bytes)));
    for (const [index, read] of reads.entries()) {
      if (read.outcome !== 'sealed') throw new Error('It lies open');
      const [own, other] = index === 0 ? [first, second] : [second, first];
      expect(await unsealedPacket(read.seal, other.joinCode)).toBeNull();
      expect(await unsealedPacket(read.seal, own.joinCode)).toMatchObject({
        packet: { content: { student: { id: own.id } } },
      });
    }
  });

  it('with an access code all open with it; for nobody, nothing is sealed with a join code', async () => {
    for (const [, bytes] of await opened({ accessCode: 'Ebb And Flow' })) {
      const read = await readPacket(bytes);
      if (read.outcome !== 'sealed') throw new Error('It lies open');
      expect(await unsealedPacket(read.seal, 'ebb-and-flow')).toMatchObject({ outcome: 'read' });
    }
    await expect(packetZip([packetFor(null)], 'Quiz', 'joinCodes', chance)).rejects.toThrow(/noJoinCode/);
    expect(await sealedText(packetFor(null), 'Quiz', null, chance)).toContain('"kind":"paper"');
  });
});
