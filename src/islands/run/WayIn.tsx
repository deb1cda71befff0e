import { Button } from '@mantine/core';
import { QRCodeSVG } from 'qrcode.react';
import { useEffect, useState } from 'react';
import styles from './run.module.css';

interface WayInProps {
  address: string;
  accessCode: string;
  guests: boolean;
}

/** Where students find the paper, large; over the whole window for the projector. */
export function WayIn({ address, accessCode, guests }: WayInProps) {
  const [big, setBig] = useState(false);
  useEffect(() => {
    if (!big) return;
    const escape = (event: KeyboardEvent) => event.key === 'Escape' && setBig(false);
    document.addEventListener('keydown', escape);
    return () => document.removeEventListener('keydown', escape);
  }, [big]);
  const local = /\/\/(localhost|127\.)/.test(address);
  return (
    <section className={big ? styles.wayInBig : styles.wayIn} aria-label="How students join">
      <div className={styles.wayInWords}>
        <p>Open this address</p>
        <p className={styles.wayInAddress}>{address.replace(/^https?:\/\//, '')}/sit</p>
        <p>Type the join code from your slip</p>
        {accessCode && (
          <>
            <p>Then type the access code</p>
            <p className={styles.wayInCode}>{accessCode}</p>
          </>
        )}
        {guests && accessCode && <p>No slip? Join as a guest with the access code.</p>}
        {local && (
          <p className={styles.fault}>
            This address only works on this computer: it isn’t on a network. Connect it to the students’
            network.
          </p>
        )}
        <Button size={big ? 'md' : 'compact-md'} onClick={() => setBig(!big)}>
          {big ? 'Back to the desk (Esc)' : 'Show full window for the projector'}
        </Button>
      </div>
      <QRCodeSVG
        value={`${address}/sit`}
        size={big ? 560 : 300}
        marginSize={4}
        title={`QR code of ${address}/sit`}
        className={styles.wayInQr ?? ''}
      />
    </section>
  );
}
