import type { PackedAsset } from '@/core/basics/asset';
import { packedAsset, unpackedAsset } from '@/core/basics/assetBytes';
import { askServer, ServerFault, type Fetch } from './ask';
import type {
  AttemptStatus,
  Carrier,
  FileReply,
  Greeting,
  HomeSitting,
  PracticeReply,
  ResultReply,
  StartReply,
} from './Carrier';

/**
 * Carries packets over the classroom server. The token of an attempt is a cookie, which this page cannot read. Replies
 * are taken as their endpoints make them: the page is the same server's, and a schema of each weighs more than all of it
 * (decision 019).
 */
export function classroomServer(fetcher?: Fetch): Carrier {
  const post = <Reply>(path: string, body: unknown): Promise<Reply> =>
    askServer('POST', path, body, fetcher) as Promise<Reply>;

  /** Asks about an attempt; where this device has no token for it any more, it gets a new one first. */
  const about = async <Reply>(joinCode: string, attemptId: string, path: string, body: unknown) => {
    const whole = `/attempts/${encodeURIComponent(attemptId)}`;
    try {
      return await post<Reply>(`${whole}/${path}`, body);
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
    return post<Reply>(`${whole}/${path}`, body);
  };

  return {
    greet: async (joinCode) => {
      try {
        return await post<Greeting | null>('/greet', { joinCode });
      } catch (error) {
        if (error instanceof ServerFault && error.why === 'notFound') return null;
        throw error;
      }
    },
    comeAsGuest: (name, accessCode) => post<Greeting | null>('/guest', { name, accessCode }),
    home: (joinCode) => post<HomeSitting[]>('/home', { joinCode }),
    start: (joinCode, sittingId, accessCode, tabId) =>
      post<StartReply>('/start', { joinCode, sittingId, accessCode, tabId }),
    handOver: (joinCode, attemptId, request) =>
      about<AttemptStatus | null>(joinCode, attemptId, 'answers', request),
    handOverFile: async (joinCode, attemptId, file) =>
      (await about<FileReply>(joinCode, attemptId, 'files', packedAsset(file))) ?? 'unknown',
    file: async (joinCode, sittingId, fileId) => {
      const found = await post<PackedAsset | null>('/file', { joinCode, sittingId, fileId });
      return found && unpackedAsset(found);
    },
    practise: (joinCode, attemptId, questionId, doing) =>
      about<PracticeReply>(joinCode, attemptId, 'practice', { questionId, doing }),
    ask: (joinCode, sittingId, request) => post<boolean>('/ask', { joinCode, sittingId, request }),
    handIn: (joinCode, attemptId) => about<AttemptStatus | null>(joinCode, attemptId, 'hand-in', {}),
    result: (joinCode, sittingId, opening = true) =>
      post<ResultReply>('/result', { joinCode, sittingId, opening }),
    toHand: async () => null,
  };
}
