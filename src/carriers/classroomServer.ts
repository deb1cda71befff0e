import type { PackedAsset } from '@/core/basics/asset';
import { packedAsset, unpackedAsset } from '@/core/basics/assetBytes';
import { askedBy, heldBy, messageList, type MessageName } from '@/core/exchange/messageList';
import { ServerFault } from '@/core/exchange/serverFault';
import { askServer, type Fetch } from './ask';
import type { Carrier, CarriedFile, FileReply, Greeting } from './Carrier';

/**
 * Carries packets over the classroom server. The token of an attempt is a cookie, which this page cannot read. Replies
 * are taken as their endpoints make them: the page is the same server's, and a schema of each weighs more than all of it
 * (decision 019).
 */
export function classroomServer(fetcher?: Fetch): Carrier {
  const post = (path: string, body: unknown): Promise<unknown> => askServer('POST', path, body, fetcher);

  /** Asks about an attempt; where this device has no token for it any more, it gets a new one first. */
  const about = async (joinCode: unknown, attemptId: unknown, path: string, body: unknown) => {
    try {
      return await post(path, body);
    } catch (error) {
      if (!(error instanceof ServerFault) || error.why !== 'noSession') throw error;
    }
    try {
      await post(`/attempts/${encodeURIComponent(String(attemptId))}/session`, { joinCode });
    } catch (error) {
      // The server does not know this attempt of this student.
      if (error instanceof ServerFault && error.why === 'notFound') return null;
      throw error;
    }
    return post(path, body);
  };

  const ask = (name: MessageName, said: unknown[]): Promise<unknown> => {
    const { path, role } = messageList[name];
    const { ...body } = heldBy(name, said);
    if (role === 'anyone') return post(path, body);
    // The cookie says whose it is, the path which one.
    const { joinCode, attemptId } = body;
    delete body.joinCode;
    delete body.attemptId;
    return about(
      joinCode,
      attemptId,
      path.replace(':attemptId', encodeURIComponent(String(attemptId))),
      body,
    );
  };
  const each = askedBy(ask);

  return {
    ...each,
    greet: async (joinCode) => {
      try {
        return (await ask('greet', [joinCode])) as Greeting | null;
      } catch (error) {
        if (error instanceof ServerFault && error.why === 'notFound') return null;
        throw error;
      }
    },
    handOverFile: async (joinCode, attemptId, file: CarriedFile) =>
      ((await ask('handOverFile', [joinCode, attemptId, packedAsset(file)])) as FileReply | null) ??
      'unknown',
    file: async (...asked) => {
      const found = (await ask('file', asked)) as PackedAsset | null;
      return found && unpackedAsset(found);
    },
    toHand: async () => null,
  };
}
