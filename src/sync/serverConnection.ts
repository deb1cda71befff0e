import { z } from 'zod';
import { base64From, bytesFrom } from '@/core/basics/base64';
import { MailboxNews, MailboxPresence, MailboxState, type MailboxChange } from '@/core/exchange/mailbox';
import { MailNews, type MailJob } from '@/core/exchange/mail';
import { RegisterReply, type ToRegister } from '@/core/exchange/register';
import { DeskCopy, LackingParts, SealedBytes } from '@/core/model/deskCopy';
import { PackedAsset, type Asset } from '@/core/basics/asset';
import { DeskHold, PairedComputer, ToldHold, type Computer, type HoldAct } from '@/core/model/deskHold';
import { packedAsset, unpackedAsset } from '@/core/basics/assetBytes';
import { askServer, type Fetch } from '../carriers/ask';

/** The desk's connection to the mailbox of the classroom server. */
export interface ServerConnection {
  /** @returns which mailbox it is */
  pair(secret: string, computer?: Computer): Promise<string>;
  unpair(): Promise<void>;
  state(): Promise<MailboxState>;
  forgive(from: string): Promise<void>;
  put(changes: readonly MailboxChange[]): Promise<void>;
  news(after: number): Promise<MailboxNews>;
  present(after: number): Promise<MailboxPresence>;
  putFile(file: Asset): Promise<void>;
  file(id: string): Promise<Asset>;
  /** Which of these parts of copies are not there. */
  lackingParts(ids: readonly string[]): Promise<string[]>;
  putPart(id: string, sealed: Uint8Array): Promise<void>;
  part(id: string): Promise<Uint8Array>;
  /** Says that a copy is whole; its parts are there. */
  putCopy(copy: DeskCopy): Promise<void>;
  /** The copies that are there, of whatever desk, the newest first. */
  copies(): Promise<DeskCopy[]>;
  /** The newest copy of a desk; null: there is none. */
  newestCopy(deskId: string): Promise<DeskCopy | null>;
  /** Which computers hold the desks that are there. */
  holds(): Promise<ToldHold[]>;
  /** @throws {ServerFault} `elsewhere` or `changed`: see `holdAfter` */
  hold(act: HoldAct): Promise<DeskHold>;
  computers(): Promise<PairedComputer[]>;
  /** Says what this browser is called. */
  nameComputer(computer: Computer): Promise<void>;
  /** Forgets a browser that is paired. @throws {ServerFault} wrongSecret */
  forgetComputer(secret: string, id: string): Promise<void>;
  /** What the server can do with mail, and how messages stand that changed since. */
  mail(after: number): Promise<MailNews>;
  sendMail(jobs: readonly MailJob[]): Promise<void>;
  sendMailAgain(ids: readonly string[]): Promise<void>;
  /** Where the register is; null: there is none behind this server. */
  registerAt(): Promise<string | null>;
  sendToRegister(asked: ToRegister): Promise<RegisterReply>;
}

export function serverConnection(fetcher?: Fetch): ServerConnection {
  const ask = (
    method: 'GET' | 'POST' | 'PUT' | 'DELETE',
    path: string,
    body?: unknown,
    { outlives = true } = {},
  ) => askServer(method, path, body, fetcher, outlives);
  return {
    pair: async (secret, computer) =>
      z.object({ mailbox: z.string() }).parse(await ask('POST', '/pair', { secret, computer })).mailbox,
    unpair: async () => void (await ask('DELETE', '/pair')),
    state: async () => MailboxState.parse(await ask('GET', '/desk/state')),
    forgive: async (from) => void (await ask('POST', '/desk/forgive', { from })),
    put: async (changes) => void (await ask('POST', '/desk/changes', { changes })),
    news: async (after) => MailboxNews.parse(await ask('GET', `/desk/news?after=${after}`)),
    present: async (after) => MailboxPresence.parse(await ask('GET', `/desk/present?after=${after}`)),
    putFile: async (file) => void (await ask('PUT', '/desk/files', packedAsset(file))),
    file: async (id) =>
      unpackedAsset(PackedAsset.parse(await ask('GET', `/desk/files/${encodeURIComponent(id)}`))),
    lackingParts: async (ids) => LackingParts.parse(await ask('POST', '/desk/copies/lacking', { ids })).ids,
    putPart: async (id, sealed) =>
      // Several are on their way at the same time.
      void (await ask(
        'PUT',
        `/desk/copies/parts/${id}`,
        { base64: base64From(sealed) },
        { outlives: false },
      )),
    part: async (id) => bytesFrom(SealedBytes.parse(await ask('GET', `/desk/copies/parts/${id}`)).base64),
    putCopy: async (copy) => void (await ask('PUT', '/desk/copies', copy)),
    copies: async () => DeskCopy.array().parse(await ask('GET', '/desk/copies')),
    newestCopy: async (deskId) =>
      DeskCopy.array().parse(await ask('GET', `/desk/copies?newest=${encodeURIComponent(deskId)}`))[0] ??
      null,
    holds: async () => ToldHold.array().parse(await ask('GET', '/desk/holds')),
    hold: async (act) => DeskHold.parse(await ask('POST', '/desk/holds', act)),
    computers: async () => PairedComputer.array().parse(await ask('GET', '/desk/computers')),
    nameComputer: async (computer) => void (await ask('PUT', '/desk/computers/this', computer)),
    forgetComputer: async (secret, id) => void (await ask('POST', '/desk/computers/forget', { secret, id })),
    mail: async (after) => MailNews.parse(await ask('GET', `/desk/mail?after=${after}`)),
    sendMail: async (jobs) => void (await ask('POST', '/desk/mail', { jobs })),
    sendMailAgain: async (ids) => void (await ask('POST', '/desk/mail/again', { ids })),
    registerAt: async () =>
      z.object({ at: z.string().nullable() }).parse(await ask('GET', '/desk/register')).at,
    sendToRegister: async (asked) => RegisterReply.parse(await ask('POST', '/desk/register', asked)),
  };
}
