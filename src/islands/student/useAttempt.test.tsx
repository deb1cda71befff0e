// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { act, renderHook, waitFor } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { carrierWith } from '../../../tests/unit/carrier';
import { at, attemptOf, paperQuestions } from '../../../tests/unit/samples';
import type { AttemptStatus, Carrier, HandOverRequest } from '@/carriers/Carrier';
import { paperPacket } from '@/core/formats/packet/paper';
import { sitDesk, type HeldAttempt } from '@/store/sitTables';
import { useAttempt } from './useAttempt';

const held: HeldAttempt = {
  attemptId: 'attempt1',
  sittingId: 'sitting1',
  joinCode: 'K7M4QX',
  packet: paperPacket({ title: 'Tides', instructions: '', questions: paperQuestions }, attemptOf()),
  answers: {},
  comeBack: [],
  unsent: [],
  apart: [],
};
const status: AttemptStatus = {
  attemptId: 'attempt1',
  state: 'working',
  deadline: null,
  now: Date.parse(at),
  answered: [],
  endedAt: null,
  elsewhere: false,
  became: {},
  choices: [],
  late: [],
};

const took = ({ answers }: Pick<HandOverRequest, 'answers'>): AttemptStatus => ({
  ...status,
  became: Object.fromEntries(Object.keys(answers).map((id) => [id, 'counts'])),
});

function sit(handOver: Carrier['handOver']) {
  const carrier = carrierWith({ handOver });
  return renderHook(() => useAttempt(carrier, held)).result;
}

describe('handing over while the paper is sat', () => {
  it('what is acknowledged is kept there; each hand-over has a higher number than the one before', async () => {
    const requests: HandOverRequest[] = [];
    const attempt = sit(async (_code, _id, request) => {
      requests.push(request);
      return took(request);
    });
    await waitFor(() => expect(attempt.current.saveState.state).toBe('saved'));
    act(() => attempt.current.session.respond('q3', { text: 'east' }));
    expect(attempt.current.saveState.state).toBe('saving');
    await waitFor(() => expect(attempt.current.saveState.state).toBe('saved'));
    expect(requests.at(-1)?.answers.q3?.response).toEqual({ text: 'east' });
    const numbers = requests.map(({ sequence }) => sequence ?? 0);
    expect(numbers).toEqual([...numbers].sort((a, b) => a - b));
    expect(new Set(numbers).size).toBe(numbers.length);
    expect((await sitDesk.attempts.get('attempt1'))?.unsent).toEqual([]);
  });

  it('what is typed while an answer is on its way goes after it, in the same millisecond too', async () => {
    const sent: string[] = [];
    let arrive: () => void = () => undefined;
    const attempt = sit(async (_code, _id, { answers }) => {
      const { text } = (answers.q3?.response ?? { text: '' }) as { text: string };
      if (text) sent.push(text);
      if (text === 'eas') await new Promise<void>((resolve) => (arrive = resolve));
      return took({ answers });
    });
    await waitFor(() => expect(attempt.current.saveState.state).toBe('saved'));
    const clock = vi.spyOn(Date.prototype, 'toISOString').mockReturnValue(at);
    try {
      act(() => attempt.current.session.respond('q3', { text: 'eas' }));
      await waitFor(() => expect(sent).toEqual(['eas']));
      act(() => attempt.current.session.respond('q3', { text: 'east' }));
      arrive();
      await waitFor(() => expect(sent.at(-1)).toBe('east'));
    } finally {
      clock.mockRestore();
    }
  });

  it.each([
    ['the server is away', () => Promise.reject(new Error('unreachable'))],
    ['it does not know the attempt any more', () => Promise.resolve(null)],
  ])('where %s, the answers stay on the device and are not called kept', async (_why, answer) => {
    const attempt = sit(vi.fn(answer));
    act(() => attempt.current.session.respond('q3', { text: 'west' }));
    await waitFor(() => expect(attempt.current.saveState.state).toBe('onDevice'));
    expect(await attempt.current.session.handIn()).toBe(false);
    const kept = await sitDesk.attempts.get('attempt1');
    expect([kept?.answers.q3?.response, kept?.unsent]).toEqual([{ text: 'west' }, ['q3']]);
  });

  it('with nothing to hand over a sign of life is given, and how the attempt stands is heard by it', async () => {
    const handOver = vi.fn(async (_code: string, _id: string, request: HandOverRequest) => took(request));
    const present = vi.fn(async () => ({ ...status, state: 'collected' as const }));
    vi.useFakeTimers({ shouldAdvanceTime: true, toFake: ['setInterval', 'clearInterval'] });
    try {
      const carrier = carrierWith({ handOver, present });
      const attempt = renderHook(() => useAttempt(carrier, held)).result;
      await waitFor(() => expect(attempt.current.saveState.state).toBe('saved'));
      const before = handOver.mock.calls.length;
      await act(() => vi.advanceTimersByTimeAsync(4_000));
      expect(present).toHaveBeenCalledWith('K7M4QX', 'attempt1', expect.any(String));
      expect(attempt.current.status?.state).toBe('collected');
      expect(handOver.mock.calls.length).toBe(before);
      act(() => attempt.current.session.toggleComeBack('q1'));
      await waitFor(() => expect(handOver.mock.calls.at(-1)?.[2].comeBack).toEqual(['q1']));
    } finally {
      vi.useRealTimers();
    }
  });
});
