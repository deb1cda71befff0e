import { Button, Checkbox } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import type { Finding } from '@/core/basics/common';
import type { Paper } from '@/core/model/paper';
import { givenCount, paperPoints } from '@/core/model/parts';
import { paperFindings } from '@/core/scoring/paperFindings';
import { deletePaper } from '@/store/papers';
import { desk } from '@/store/tables';
import { isoNow } from '@/ui/clock';
import { act } from '@/desk/act';
import { counted, pointsWords } from '@/words/format';
import { PointsField } from '@/ui/PointsField';
import { findingWords } from '@/words/findings';
import { MarginBlock } from '@/ui/TwoColumns';
import { ChangedSince } from './ChangedSince';
import type { KeepPaper } from './usePaperDraft';
import styles from './write.module.css';

interface PaperMarginProps {
  paper: Paper;
  keep: KeepPaper;
  pickMany: () => void;
  goTo: (finding: Finding) => void;
  /** True while a question is open: only what must stay in sight. */
  brief: boolean;
}

/** The paper as a whole: its points, what is not ready, and what to do with it. */
export function PaperMargin({ paper, keep, goTo, brief, pickMany }: PaperMarginProps) {
  const findings = paperFindings(paper);
  const stops = findings.filter((finding) => finding.level === 'stops');
  const shown = brief ? findings.slice(0, 3) : findings;
  const sittings =
    useLiveQuery(() => desk.sittings.where('paperId').equals(paper.id).toArray(), [paper.id]) ?? [];
  const ready = stops.length === 0;
  const remove = async () => {
    if (await act(deletePaper(paper.id, isoNow()))) window.location.assign('/');
  };
  return (
    <>
      <MarginBlock title="The paper">
        <p className={styles.total}>
          {pointsWords(paperPoints(paper))}{' '}
          <span className={styles.soft}>in {counted(givenCount(paper), 'question')}</span>
        </p>
        {/* What comes next stays in reach, whatever is open. */}
        <div className={brief ? styles.nextInRow : styles.actions}>
          {ready ? (
            <Button
              component="a"
              size={brief ? 'compact-sm' : 'xs'}
              href={`/papers/${paper.id}/give`}
              variant={sittings.length === 0 ? 'filled' : 'default'}
            >
              Give out
            </Button>
          ) : (
            <Button size={brief ? 'compact-sm' : 'xs'} disabled>
              Give out
            </Button>
          )}
          {paper.questions.length === 0 && paper.title !== '' && (
            <Button component="a" size="xs" href={`/papers/${paper.id}/give?on-paper`}>
              Draw questions on a printed paper
            </Button>
          )}
          <Button
            component="a"
            size={brief ? 'compact-sm' : 'xs'}
            href={`/papers/${paper.id}/look`}
            aria-label="Preview as a student"
          >
            {brief ? 'Preview' : 'Preview as a student'}
          </Button>
          <Button component="a" size={brief ? 'compact-sm' : 'xs'} href={`/papers/${paper.id}/print`}>
            Print
          </Button>
        </div>
        {!brief && (
          <div className={styles.actions}>
            <Button component="a" size="xs" href={`/papers/${paper.id}/paste`}>
              Paste a quiz
            </Button>
            <Button component="a" size="xs" href={`/papers/${paper.id}/sheet`}>
              Import and export
            </Button>
            <Button size="xs" onClick={pickMany} disabled={paper.questions.length === 0}>
              Edit several questions
            </Button>
            <div className={styles.pointsRow} id="field-wantedPoints">
              <PointsField
                label="Target total"
                w={64}
                value={paper.wantedPoints ?? null}
                onPoints={(wanted) => {
                  const { wantedPoints: _, ...rest } = paper;
                  keep(
                    wanted === null ? rest : { ...rest, wantedPoints: wanted },
                    'Target total changed',
                    'wantedPoints',
                  );
                }}
              />
              <span>points target total</span>
            </div>
            <Checkbox
              size="sm"
              label={
                paper.parts
                  ? 'Shuffle the questions before the first part'
                  : 'Each student gets the questions in a different order'
              }
              checked={paper.shuffle ?? false}
              onChange={(event) =>
                keep({ ...paper, shuffle: event.currentTarget.checked }, 'Order of the questions changed')
              }
            />
          </div>
        )}
      </MarginBlock>
      {!brief && sittings.length === 0 && (
        <MarginBlock title="Not given out yet">
          <Button size="xs" onClick={() => void remove()}>
            Delete paper
          </Button>
        </MarginBlock>
      )}
      {sittings.map((sitting) => (
        <ChangedSince key={sitting.id} paper={paper} sitting={sitting} />
      ))}
      <MarginBlock
        title={findings.length === 0 ? 'Nothing to fix' : `${counted(findings.length, 'thing')} to check`}
      >
        <ul className={styles.findings}>
          {shown.map((finding, index) => (
            <li key={index}>
              <button type="button" className={styles.finding} onClick={() => goTo(finding)}>
                {findingWords(finding, paper.questions)}
                {finding.level === 'stops' && <span className={styles.stops}> fix before giving out</span>}
              </button>
            </li>
          ))}
        </ul>
        {shown.length < findings.length && (
          <p className={styles.soft}>and {findings.length - shown.length} more</p>
        )}
      </MarginBlock>
    </>
  );
}
