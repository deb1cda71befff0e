import { Button, Checkbox } from '@mantine/core';
import { useMemo } from 'react';
import { classComment, classRows, shownRows, type ClassRow } from '@/core/analysis/classRows';
import { mostMissedFirst } from '@/core/analysis/sittingFigures';
import { plainText } from '@/core/basics/richWords';
import { kindOf } from '@/core/kinds';
import { fileNameOf } from '@/core/formats/fileName';
import { inFigures } from '@/core/seats/seats';
import { act } from '@/desk/act';
import { DeskReady } from '@/desk/DeskReady';
import { SittingStrip } from '@/desk/SittingPage';
import { useSitting, type SittingData } from '@/desk/useSitting';
import { EmptyState } from '@/ui/EmptyState';
import { KeyHint } from '@/ui/KeyHint';
import { Rich } from '@/ui/Rich';
import { saveFile } from '@/ui/saveFile';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { slidesPdf } from '@/workers/makePdf';
import { counted, percent } from '@/words/format';
import { useAnalysis, type Analysis, type QuestionRow } from '@/desk/useAnalysis';
import { steps, useClassScreen, type ClassScreen } from './useClassScreen';
import styles from './class.module.css';

const shortcuts = [
  { keys: '→', does: 'show what was answered, the key, the comment, then the next question' },
  { keys: '←', does: 'go back a step' },
  { keys: 'PageDown', does: 'go to the next question' },
  { keys: 'PageUp', does: 'go to the question before' },
  { keys: '↑ ↓', does: 'point at a line' },
];

/**
 * Going through a sitting with the class: the most missed first, one question a screen, without names. With `?screen` it is
 * the screen alone, for a second window; both show the same.
 */
export function ClassPage({ sittingId }: { sittingId: string }) {
  const alone = new URLSearchParams(location.search).has('screen');
  const sitting = useSitting(sittingId);
  return (
    <DeskReady
      shortcuts={shortcuts}
      strip={sitting && !alone && <SittingStrip sitting={sitting} current="analyse" />}
    >
      {sitting === null && <EmptyState title="Sitting not found" action={<a href="/">Go to the desk</a>} />}
      {sitting && <Class sitting={sitting} alone={alone} />}
    </DeskReady>
  );
}

function Class({ sitting, alone }: { sitting: SittingData; alone: boolean }) {
  const seats = useMemo(() => inFigures(sitting.seats), [sitting.seats]);
  const analysis = useAnalysis(sitting, seats);
  const rows = useMemo(
    () => mostMissedFirst(analysis.rows).filter(({ scored }) => scored > 0),
    [analysis.rows],
  );
  const lines = useMemo(
    () =>
      new Map(rows.map(({ question }) => [question.id, classRows(question, analysis.answersOf(question))])),
    [rows, analysis],
  );
  const screen = useClassScreen(
    sitting.sitting.id,
    rows.map(({ question }) => question.id),
    ({ questionId, said, step }) => shownRows(lines.get(questionId) ?? [], said, step >= steps.key).length,
  );
  const row = rows.find(({ question }) => question.id === screen.at.questionId) ?? rows[0];
  if (!row)
    return (
      <EmptyState
        title="Nothing to show yet"
        action={<a href={`/sittings/${sitting.sitting.id}/mark`}>Go to marking</a>}
      >
        Questions appear once answers have points.
      </EmptyState>
    );
  const all = lines.get(row.question.id) ?? [];
  const shown = shownRows(all, screen.at.said, screen.at.step >= steps.key);
  const slide = <Slide row={row} lines={shown} screen={screen} large={alone} />;
  if (alone) return slide;
  return (
    <TwoColumns
      marginLabel="For you alone"
      margin={<ForTeacher {...{ sitting, rows, row, lines: all, screen, analysis }} />}
    >
      {slide}
    </TwoColumns>
  );
}

const shortened = (text: string) => (text.length > 60 ? `${text.slice(0, 60).trimEnd()}…` : text);

interface SlideProps {
  row: QuestionRow;
  lines: readonly ClassRow[];
  screen: ClassScreen;
  large: boolean;
}

/** What the class sees. */
function Slide({ row, lines, screen, large }: SlideProps) {
  const { step, pointer } = screen.at;
  const { question, number, facility } = row;
  const kind = kindOf(question);
  const most = Math.max(1, ...lines.map(({ count }) => count));
  const comment = classComment(question);
  return (
    <section className={large ? styles.large : styles.slide} aria-label="Screen for the class">
      <h2>
        {number}&ensp;
        <Rich text={question.stem} />
      </h2>
      {step >= steps.answers && (
        <>
          <p className={styles.result}>{facility !== null && `${percent(facility)} of the points`}</p>
          <ul className={styles.lines}>
            {lines.map((line, index) => {
              const right = step >= steps.key && line.share === 1;
              return (
                <li
                  key={line.id}
                  className={[right && styles.right, pointer === index && styles.pointed]
                    .filter(Boolean)
                    .join(' ')}
                  aria-current={pointer === index ? 'true' : undefined}
                >
                  <span>
                    {right && <span aria-hidden>✓ </span>}
                    {line.label}
                    {right && <span className="visuallyHidden"> (right)</span>}
                  </span>
                  <span className={styles.track} aria-hidden>
                    <span className={styles.level} style={{ width: `${(line.count / most) * 100}%` }} />
                  </span>
                  <span className={styles.count}>{line.count}</span>
                </li>
              );
            })}
          </ul>
        </>
      )}
      {step >= steps.key && kind.keyText(question) && (
        <p className={styles.key}>
          {kind.scoredBy === 'hand' ? 'Model answer' : 'Accepted'}: {kind.keyText(question)}
        </p>
      )}
      {step >= steps.comment && comment && <p className={`keepLines ${styles.comment}`}>{comment}</p>}
      {large && <p className={styles.hint}>→ goes on</p>}
    </section>
  );
}

interface ForTeacherProps {
  sitting: SittingData;
  rows: readonly QuestionRow[];
  row: QuestionRow;
  lines: readonly ClassRow[];
  screen: ClassScreen;
  analysis: Analysis;
}

/** What steers the screen, and what is picked to be shown. */
function ForTeacher({ sitting, rows, row, lines, screen, analysis }: ForTeacherProps) {
  const said = lines.filter((line) => line.said);
  const save = () => {
    const title = `${sitting.sitting.title}, with the class`;
    const slides = rows.map(({ question, number, facility }) => ({
      number,
      stem: plainText(question.stem),
      result: facility === null ? '' : `${percent(facility)} of the points`,
      rows: shownRows(classRows(question, analysis.answersOf(question)), screen.at.said, true).map(
        ({ label, count, share }) => ({ label, count, right: share === 1 }),
      ),
      key: kindOf(question).keyText(question),
      comment: classComment(question),
    }));
    void act(slidesPdf(title, slides).result).then(
      (bytes) => bytes && saveFile(`${fileNameOf(title)}.pdf`, 'application/pdf', bytes),
    );
  };
  return (
    <>
      <MarginBlock title="The screen">
        <div className={styles.buttons}>
          <Button size="compact-md" onClick={screen.back}>
            Back&ensp;
            <KeyHint keys="←" />
          </Button>
          <Button size="compact-md" variant="filled" onClick={screen.forward}>
            {screen.nextDoes}&ensp;
            <KeyHint keys="→" />
          </Button>
        </div>
        <p className={styles.soft}>↑ and ↓ point at a line.</p>
        <Button
          size="compact-sm"
          onClick={() => window.open('?screen', `class-${sitting.sitting.id}`, 'popup,width=1200,height=750')}
        >
          Open the screen in a second window
        </Button>
        <Button size="compact-sm" onClick={save}>
          Save {counted(rows.length, 'question')} as PDF
        </Button>
      </MarginBlock>
      <MarginBlock title="Answers to show">
        {said.length === 0 ? (
          <p className={styles.soft}>
            Nothing that two students or more wrote in the same words. Words of one alone are never shown.
          </p>
        ) : (
          said.map((line) => (
            <Checkbox
              key={line.id}
              size="sm"
              label={`${line.label} (${line.count})`}
              checked={screen.at.said.includes(line.id)}
              onChange={(event) => screen.show(line.id, event.currentTarget.checked)}
            />
          ))
        )}
      </MarginBlock>
      <MarginBlock title="Questions, most missed first">
        <ol className={styles.list}>
          {rows.map(({ question, number, facility }) => (
            <li key={question.id}>
              <button
                type="button"
                aria-current={question.id === row.question.id ? 'true' : undefined}
                onClick={() => screen.goTo(question.id)}
              >
                <strong>{number}</strong> {shortened(plainText(question.stem))}
              </button>
              <span>{facility !== null && percent(facility)}</span>
            </li>
          ))}
        </ol>
      </MarginBlock>
    </>
  );
}
