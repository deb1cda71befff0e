import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { at, attemptOf, paperQuestions, sittingOf } from '../../../tests/unit/samples';
import { handedOver } from '../exchange/working';
import type { HandOverRequest } from '../exchange/messages';
import { statusOf } from '../exchange/attemptOf';
import type { Answers, Attempt } from '../model/sitting';
import { termsFor } from './terms';
import {
  acknowledged,
  heldFrom,
  outgoing,
  typed,
  withOthers,
  pageMemory,
  type HeldAnswers,
  type PageMemory,
} from '../exchange/held';
import { countedAnswers } from './late';

/**
 * Two devices of one student, any order of typing, sending, losing, repeating, delaying and starting anew, another page
 * on the same device, and the end of the time. What must hold is judged by what was on the screen when something was
 * typed, and never by the stamps that the code goes by.
 */

const start = Date.parse(at);
const limitMs = 1_000_000;
const questionIds = ['q3', 'q4'];

type Act =
  | { what: 'type'; page: number; question: number }
  | { what: 'send'; page: number; fate: 'arrives' | 'lost' | 'answerLost' | 'held' }
  | { what: 'late'; which: number; again: boolean }
  | { what: 'restart'; page: number }
  | { what: 'choose'; page: number; question: number }
  | { what: 'wait'; ms: number }
  | { what: 'end' };

const page = fc.integer({ min: 0, max: 2 });
const question = fc.integer({ min: 0, max: 1 });
const anyAct: fc.Arbitrary<Act> = fc.oneof(
  { weight: 5, arbitrary: fc.record({ what: fc.constant('type' as const), page, question }) },
  {
    weight: 5,
    arbitrary: fc.record({
      what: fc.constant('send' as const),
      page,
      fate: fc.constantFrom(
        'arrives' as const,
        'arrives' as const,
        'lost' as const,
        'answerLost' as const,
        'held' as const,
      ),
    }),
  },
  {
    weight: 2,
    arbitrary: fc.record({ what: fc.constant('late' as const), which: fc.nat(5), again: fc.boolean() }),
  },
  { weight: 2, arbitrary: fc.record({ what: fc.constant('restart' as const), page }) },
  { weight: 1, arbitrary: fc.record({ what: fc.constant('choose' as const), page, question }) },
  {
    weight: 2,
    arbitrary: fc.record({ what: fc.constant('wait' as const), ms: fc.constantFrom(500, 40_000) }),
  },
  { weight: 1, arbitrary: fc.constant({ what: 'end' as const }) },
);

/** Pages 0 and 1 are on one device and share what it keeps; page 2 is on another. */
const deviceOf = (index: number) => (index < 2 ? 0 : 1);

interface Page {
  name: string;
  held: HeldAnswers;
  memory: PageMemory;
}

/** A class of one student: the server, the pages, the wire, and what was really typed. */
class Room {
  now = start;
  attempt: Attempt = attemptOf({ questionIds: ['q1', 'q2', 'q3', 'q4'] });
  ended = false;
  pages: Page[] = [];
  /** What each device keeps: of the page that wrote last. */
  disks: ({ page: string; held: HeldAnswers } | null)[] = [null, null];
  wire: HandOverRequest[] = [];
  /** What was on the screen when something was typed, by what was typed. */
  over = new Map<string, string[]>();
  /** What took the place of what, among the answers that count. */
  replaced: [string, string][] = [];
  names = 0;
  texts = 0;
  sequence = 0;

  constructor() {
    for (const index of [0, 1, 2]) this.begins(index);
  }

  get terms() {
    return termsFor({}, sittingOf({ timeLimitMs: limitMs }), [], this.now);
  }

  begins(index: number): void {
    const disk = this.disks[deviceOf(index)] ?? null;
    const name = `page${(this.names += 1)}`;
    this.attempt = { ...this.attempt, tab: { id: name, since: new Date(this.now).toISOString() } };
    const held = heldFrom(countedAnswers(this.attempt), disk?.held ?? null);
    this.pages[index] = { name, held, memory: pageMemory(name) };
    this.keep(index);
  }

  keep(index: number): void {
    const mine = this.page(index);
    const disk = this.disks[deviceOf(index)];
    if (disk && disk.page !== mine.name) mine.held = withOthers(mine.held, disk.held, mine.memory);
    this.disks[deviceOf(index)] = { page: mine.name, held: mine.held };
  }

  page(index: number): Page {
    const found = this.pages[index];
    if (!found) throw new Error('no such page');
    return found;
  }

  types(index: number, questionId: string, text: string, inView: Parameters<typeof typed>[5] = []): void {
    const mine = this.page(index);
    const before = mine.held.answers[questionId]?.response as { text: string } | undefined;
    const iso = new Date(this.now).toISOString();
    const seen = inView.map(({ response }) => (response as { text: string }).text);
    this.over.set(text, [...(before ? [before.text] : []), ...seen]);
    mine.held = typed(mine.held, questionId, { text }, iso, mine.memory, inView);
    this.keep(index);
  }

  takes(request: HandOverRequest) {
    const done = handedOver(this.attempt, paperQuestions, sittingOf(), this.terms, request, this.now);
    for (const [id, { response }] of Object.entries(done.attempt.answers)) {
      const [text, before] = [response, this.attempt.answers[id]?.response].map(
        (each) => (each as { text: string } | undefined)?.text,
      );
      if (text && before && text !== before) this.replaced.push([text, before]);
    }
    this.attempt = done.attempt;
    return statusOf(done.attempt, this.terms, this.now, request.tabId, done.became);
  }

  sends(index: number, fate: string): boolean {
    const mine = this.page(index);
    const sent = outgoing(mine.held);
    const request = {
      answers: structuredClone(sent),
      comeBack: null,
      tabId: mine.name,
      sequence: (this.sequence += 1),
    };
    if (fate === 'lost') return false;
    if (fate === 'held') {
      this.wire.push(request);
      return false;
    }
    const reply = this.takes(request);
    if (fate === 'answerLost') return false;
    const before = mine.held;
    mine.held = acknowledged(mine.held, sent, reply.became, reply.choices, mine.memory);
    this.keep(index);
    return before.unsent.length + before.apart.length > mine.held.unsent.length + mine.held.apart.length;
  }

  does(act: Act): void {
    this.now += 100;
    if (act.what === 'type' && !this.ended)
      this.types(
        act.page,
        questionIds[act.question] ?? '',
        `t${(this.texts += 1)} ${'x'.repeat(this.texts % 7)}`,
      );
    if (act.what === 'send') this.sends(act.page, act.fate);
    if (act.what === 'late' && this.wire.length > 0) {
      const place = act.which % this.wire.length;
      const request = this.wire[place];
      if (request) this.takes(request);
      if (!act.again) this.wire.splice(place, 1);
    }
    if (act.what === 'restart' && !this.ended) this.begins(act.page);
    if (act.what === 'wait' && !this.ended) this.now += act.ms;
    if (act.what === 'end' && !this.ended && this.texts > 1) {
      this.ended = true;
      this.now = start + limitMs + 20_000;
    }
    if (act.what === 'choose' && !this.ended) {
      const id = questionIds[act.question] ?? '';
      const reply = this.takes({ answers: {}, comeBack: null, tabId: this.page(act.page).name });
      const choice = reply.choices.find(({ questionId }) => questionId === id);
      const other = choice?.others[0];
      // The same words again: told apart here by a mark.
      const words = other && `${(other.response as { text: string }).text}'${(this.texts += 1)}`;
      if (other && words) this.types(act.page, id, words, choice.others);
    }
  }

  /** In the end every line is whole again. */
  allArrives(): void {
    for (const request of this.wire) this.takes(request);
    for (let round = 0; round < 4; round++)
      for (const index of [0, 1, 2]) while (this.sends(index, 'arrives'));
  }

  /** Every text that the teacher can read. */
  readable(): Set<string> {
    const all: { response: unknown }[] = [
      ...Object.values(this.attempt.answers),
      ...(this.attempt.earlier ?? []),
      ...(this.attempt.late ?? []),
    ];
    return new Set(all.map(({ response }) => (response as { text: string }).text));
  }

  /** Whether one text was typed over another that stood on the screen, maybe with others between. */
  overs(later: string, earlier: string): boolean {
    return (this.over.get(later) ?? []).some((before) => before === earlier || this.overs(before, earlier));
  }
}

const run = (acts: readonly Act[]) => {
  const room = new Room();
  for (const act of acts) room.does(act);
  room.allArrives();
  return room;
};
const runs = { numRuns: 1500 };
const anyActs = fc.array(anyAct, { maxLength: 60, size: 'max' });

describe('two devices of one student', () => {
  it('nothing typed is in no version, but for what its student typed over with it on the screen', () => {
    fc.assert(
      fc.property(anyActs, (acts) => {
        const room = run(acts);
        const readable = room.readable();
        for (const text of room.over.keys()) {
          const kept = readable.has(text) || [...readable].some((later) => room.overs(later, text));
          expect(kept, text).toBe(true);
        }
      }),
      runs,
    );
  });

  it('what was typed without the newer one on the screen never takes its place, and what was typed over never comes back', () => {
    fc.assert(
      fc.property(anyActs, (acts) => {
        const room = run(acts);
        for (const [later, earlier] of room.replaced) expect(room.overs(later, earlier), later).toBe(true);
      }),
      runs,
    );
  });

  it('in the end no device holds anything that it was not told of, and all say the same', () => {
    fc.assert(
      fc.property(anyActs, (acts) => {
        const room = run(acts);
        for (const { held } of room.pages) expect([held.unsent, held.apart]).toEqual([[], []]);
        const before = JSON.stringify(room.attempt.answers);
        room.allArrives();
        expect(JSON.stringify(room.attempt.answers)).toBe(before);
      }),
      runs,
    );
  });

  it('after the end nothing that counts changes; what comes is kept apart, with when it was typed', () => {
    fc.assert(
      fc.property(anyActs, (acts) => {
        const room = new Room();
        for (const act of acts) room.does(act);
        room.now = start + limitMs + 20_000;
        room.ended = true;
        const before: Answers = room.attempt.answers;
        room.allArrives();
        expect(room.attempt.answers).toEqual(before);
        for (const late of room.attempt.late ?? []) {
          expect(late.decision).toBeNull();
          expect(Date.parse(late.typedAt)).toBeLessThan(start + limitMs + 20_000);
        }
      }),
      runs,
    );
  });
});
