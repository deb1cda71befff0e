import { useEffect, useState } from 'react';
import type { MailNews } from '@/core/exchange/mail';
import { useConnection } from '@/desk/useConnection';
import { pullMail, sendByServer } from '@/sync/mail';
import { serverConnection } from '@/sync/serverConnection';

const server = serverConnection();

/** The mail server behind the classroom server, where this desk is paired and one is set up. */
export function useMailServer() {
  const reach = useConnection().state?.reach;
  const [news, setNews] = useState<MailNews | null>(null);
  const [addresses, setAddresses] = useState<readonly string[]>([]);
  useEffect(() => {
    if (reach !== 'here') return undefined;
    let here = true;
    // Without a mail server there is nothing to tell.
    pullMail(server).then(
      (next) => here && setNews(next),
      () => undefined,
    );
    server.state().then(
      (state) => here && setAddresses(state.addresses),
      () => undefined,
    );
    return () => {
      here = false;
    };
  }, [reach]);
  return {
    /** Who messages are from; null: none can be sent from here. */
    from: reach === 'here' ? (news?.from ?? null) : null,
    perHour: news?.perHour ?? 0,
    perDay: news?.perDay ?? 0,
    /** Whether the address is one that students reach. */
    reached: addresses.length > 0,
    /** Where students come in. */
    origin: addresses[0] ?? window.location.origin,
    /** @returns how many the mail server has now */
    send: (ids: readonly string[]) => sendByServer(server, ids),
    again: (ids: readonly string[]) => server.sendMailAgain(ids).then(() => pullMail(server)),
  };
}
