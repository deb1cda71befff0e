import { describe, expect, it } from 'vitest';
import { at } from '../../../tests/unit/samples';
import { askedBy, heldBy, messageList, messageNames, saidIn, type DeskEnd } from './messageList';
import { requestSchemas } from './messages';
import { answers } from '.';

/** One of each message, as a student's side says it. */
const samples: { [M in keyof DeskEnd]: Required<Parameters<DeskEnd[M]>> } = {
  greet: ['K7M4QX'],
  comeAsGuest: ['Nia Okafor', 'ebb'],
  home: ['K7M4QX'],
  start: ['K7M4QX', 'sitting1', '', 'tab'],
  handOver: [
    'K7M4QX',
    'attempt1',
    { answers: { q3: { response: { text: 'east' }, at } }, comeBack: null, tabId: 'tab' },
  ],
  present: ['K7M4QX', 'attempt1', 'tab'],
  handOverFile: [
    'K7M4QX',
    'attempt1',
    { id: 'f', name: 'sketch.png', mediaType: 'image/png', size: 1, bytes: Uint8Array.of(1) },
  ],
  file: ['K7M4QX', 'sitting1', 'file1'],
  practise: ['K7M4QX', 'attempt1', 'q1', { act: 'hint' }],
  ask: ['K7M4QX', 'sitting1', { asks: 'moreTime', words: 'The bus was late' }],
  handIn: ['K7M4QX', 'attempt1'],
  result: ['K7M4QX', 'sitting1', false],
  correct: ['K7M4QX', 'sitting1', 'q3', { text: 'west' }],
};

describe('the list of messages', () => {
  it('every message has a schema, a reply and an address of its own', () => {
    expect(Object.keys(requestSchemas).sort()).toEqual([...messageNames].sort());
    expect(Object.keys(answers).sort()).toEqual([...messageNames].sort());
    expect(new Set(messageNames.map((name) => messageList[name].path)).size).toBe(messageNames.length);
  });

  it.each(messageNames)('%s: what is said, is held by name, fits its schema and is said again', (name) => {
    const named = heldBy(name, samples[name]);
    expect(saidIn(name, requestSchemas[name].parse(named))).toEqual(samples[name]);
  });

  it('what is about an attempt names it in its address, and is its token’s', () => {
    for (const name of messageNames) {
      const { path, role, holds } = messageList[name];
      expect([path.includes(':attemptId'), holds.includes('attemptId')], name).toEqual(
        role === 'student' ? [true, true] : [false, false],
      );
    }
  });

  it('asking for a message is asking with its name and what it says', async () => {
    const end = askedBy(async (name, said) => [name, said]);
    expect(await end.start('K7M4QX', 'sitting1', 'ebb', 'tab')).toEqual([
      'start',
      ['K7M4QX', 'sitting1', 'ebb', 'tab'],
    ]);
  });
});
