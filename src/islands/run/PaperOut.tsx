import { Button, Checkbox, Radio } from '@mantine/core';
import { useState } from 'react';
import { sealHolds } from '@/core/formats/packet/code';
import { sealedText } from '@/core/formats/packet/packetZip';
import { readyToSit } from '@/core/scoring/paperFindings';
import { paperPackets } from '@/store/carriedFiles';
import { newAccessCode } from '@/store/ids';
import { changeSitting } from '@/store/sittings';
import { isoNow } from '@/ui/clock';
import { act, say } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { counted } from '@/words/format';
import { fileNameOf } from '@/core/formats/fileName';
import { saveFile } from '@/ui/saveFile';
import { chance, zipped, type Sealing } from './carriedFiles';
import { WorkLine } from '@/ui/WorkLine';
import styles from './run.module.css';

/** The paper as a file for everyone, or one for each student; sealed with the access code, or open. */
export function PaperOut({ sitting }: { sitting: SittingData }) {
  return (
    <section className={styles.stage} aria-labelledby="paper-out">
      <h2 id="paper-out">1 Save the paper</h2>
      {sitting.sitting.practice ? (
        <p>
          Practice scores each question at once and needs the key for that. It can be sat in this browser or
          over the <a href={`/sittings/${sitting.sitting.id}/devices`}>classroom server</a>; a file has no key
          in it.
        </p>
      ) : readyToSit(sitting.paper) ? (
        <Choices sitting={sitting} />
      ) : (
        <p>
          The paper isn’t ready to be sat.{' '}
          <a href={`/papers/${sitting.sitting.paperId}`}>The list beside the paper</a> says what to fix.
        </p>
      )}
    </section>
  );
}

function Choices({ sitting }: { sitting: SittingData }) {
  const { sitting: record } = sitting;
  const [forEach, setForEach] = useState(false);
  const [sealed, setSealed] = useState(true);
  const [saving, setSaving] = useState(false);
  const [sealing, setSealing] = useState<Sealing | null>(null);
  const own = sitting.seats.filter(
    ({ allowances, student }) => allowances.length > 0 || student.extraPercent !== undefined,
  ).length;
  const seal = sealed && record.accessCode !== '' ? { accessCode: record.accessCode } : null;
  /** Sealing takes a moment: long on a page that has no Web Cryptography. */
  const save = async () => {
    setSaving(true);
    await saveAll();
    setSaving(false);
  };
  const saveAll = async () => {
    const packets = await act(paperPackets(record.id, forEach, isoNow()));
    const [first] = packets ?? [];
    if (!packets || !first) return;
    const name = fileNameOf(record.title);
    if (forEach) {
      const zip = await act(zipped(packets, record.title, seal, setSealing));
      if (zip) saveFile(`${name}-papers.zip`, 'application/zip', zip);
      if (zip) say(`Saved: the paper for ${counted(packets.length, 'student')}, one file each`);
    } else {
      const text = await act(sealedText(first, record.title, seal, chance));
      if (text) saveFile(`${name}.json`, 'application/json', text);
      if (text) say(`Saved: ${name}.json, for everyone`);
    }
  };
  return (
    <>
      <Radio.Group
        value={forEach ? 'each' : 'all'}
        onChange={(value) => setForEach(value === 'each')}
        aria-label="For"
      >
        <div className={styles.choices}>
          <Radio
            value="all"
            label="One file for everyone"
            description="Students type their name and join code."
          />
          <Radio
            value="each"
            label="One file per student, as a zip"
            description={
              own > 0
                ? `Includes extra time and other exceptions of ${counted(own, 'student')}, which a single file can’t.`
                : 'Each has the student’s name in it.'
            }
          />
        </div>
      </Radio.Group>
      <Seal sitting={sitting} sealed={sealed} setSealed={setSealed} />
      {record.after && (
        <p className={styles.soft}>
          These settings show students how they did after handing in. With files they don’t see that, because
          the key isn’t in the file.
        </p>
      )}
      {record.paperVersion === null && (
        <p className={styles.soft}>From then on the paper is fixed, just as when the first student starts.</p>
      )}
      <div className={styles.row}>
        <Button
          variant={sitting.progress.in === 0 ? 'filled' : 'default'}
          loading={saving && !sealing}
          disabled={sealing !== null}
          onClick={() => void save()}
        >
          {forEach ? 'Save the papers' : 'Save the paper'}
        </Button>
        {sealing && <WorkLine doing={seal ? 'Sealing' : 'Writing'} of="file" {...sealing} />}
      </div>
    </>
  );
}

/** What the file is sealed with, and how long that holds. */
function Seal({
  sitting: { sitting: record },
  sealed,
  setSealed,
}: {
  sitting: SittingData;
  sealed: boolean;
  setSealed: (sealed: boolean) => void;
}) {
  const draw = () => {
    const accessCode = newAccessCode();
    void act(changeSitting({ ...record, accessCode }, `The access code is now ${accessCode}`, isoNow()));
  };
  if (record.accessCode === '')
    return (
      <div className={styles.seal}>
        <p>
          Anyone with the file can open it once the sitting opens. To hand it out earlier, seal it with an
          access code.
        </p>
        <Button onClick={draw}>Create an access code to seal it</Button>
      </div>
    );
  const weak = !sealHolds(record.accessCode);
  return (
    <div className={styles.seal}>
      <Checkbox
        checked={sealed}
        onChange={(event) => setSealed(event.currentTarget.checked)}
        label={
          <>
            Sealed with the access code, <strong className={styles.code}>{record.accessCode}</strong>
          </>
        }
        description={
          sealed
            ? 'Nobody can read it until you say the code, so you can hand it out the day before.'
            : 'Not sealed: anyone with the file can read it.'
        }
      />
      {sealed && weak && (
        <div className={styles.warning}>
          <p>Someone with the file could guess this code: it is short, or a word. A random code is safe.</p>
          <Button onClick={draw}>Create a random code</Button>
        </div>
      )}
    </div>
  );
}
