import { z } from 'zod';
import { packedAsset, PackedAsset, unpackedAsset } from '@/core/model/asset';
import { askServer, ServerFault, type Fetch } from './ask';
import {
  AttemptStatus,
  FileReply,
  Greeting,
  HomeSitting,
  PracticeReply,
  ResultReply,
  StartReply,
  type Carrier,
} from './Carrier';

/** Carries packets over the classroom server. The token of an attempt is a cookie, which this page cannot read. */
export function classroomServer(fetcher?: Fetch): Carrier {
  const post = (path: string, body: unknown) => askServer('POST', path, body, fetcher);

  /** Asks about an attempt; where this device has no token for it any more, it gets a new one first. */
  const about = async (joinCode: string, attemptId: string, path: string, body: unknown) => {
    const whole = `/attempts/${encodeURIComponent(attemptId)}`;
    try {
      return await post(`${whole}/${path}`, body);
    } catch (error) {
      if (!(error instanceof ServerFault) || error.why !== 'noSession') throw error;
    }
    try {
      await post(`${whole}/session`, { joinCode });
    } catch (error) {
      // The server does not know this attempt of this student.
      if (error instanceof ServerFault && error.why === 'notFound') return null;
      throw error;
    }
    return post(`${whole}/${path}`, body);
  };

  return {
    greet: async (joinCode) => {
      try {
        return Greeting.nullable().parse(await post('/greet', { joinCode }));
      } catch (error) {
        if (error instanceof ServerFault && error.why === 'notFound') return null;
        throw error;
      }
    },
    comeAsGuest: async (name, accessCode) =>
      Greeting.nullable().parse(await post('/guest', { name, accessCode })),
    home: async (joinCode) => HomeSitting.array().parse(await post('/home', { joinCode })),
    start: async (joinCode, sittingId, accessCode, tabId) =>
      StartReply.parse(await post('/start', { joinCode, sittingId, accessCode, tabId })),
    handOver: async (joinCode, attemptId, request) =>
      AttemptStatus.nullable().parse(await about(joinCode, attemptId, 'answers', request)),
    handOverFile: async (joinCode, attemptId, file) =>
      FileReply.nullable().parse(await about(joinCode, attemptId, 'files', packedAsset(file))) ?? 'unknown',
    file: async (joinCode, sittingId, fileId) => {
      const found = PackedAsset.nullable().parse(await post('/file', { joinCode, sittingId, fileId }));
      return found && unpackedAsset(found);
    },
    practise: async (joinCode, attemptId, questionId, doing) =>
      PracticeReply.parse(await about(joinCode, attemptId, 'practice', { questionId, doing })),
    ask: async (joinCode, sittingId, request) =>
      z.boolean().parse(await post('/ask', { joinCode, sittingId, request })),
    handIn: async (joinCode, attemptId) =>
      AttemptStatus.nullable().parse(await about(joinCode, attemptId, 'hand-in', {})),
    result: async (joinCode, sittingId, opening = true) =>
      ResultReply.parse(await post('/result', { joinCode, sittingId, opening })),
    toHand: async () => null,
  };
}
