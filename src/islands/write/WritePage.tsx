import { Button } from '@mantine/core';
import { useHotkeys, type HotkeyItem } from '@mantine/hooks';
import { nanoid } from 'nanoid';
import { useEffect, useState } from 'react';
import { kindOf, type KindName, type Question } from '@/core/kinds';
import { numbersOf } from '@/core/kinds/itemNumbers';
import { optionLetter } from '@/core/kinds/optionLetter';
import type { Finding } from '@/core/basics/common';
import type { Paper } from '@/core/model/paper';
import { DeskReady } from '@/desk/DeskReady';
import type { Shortcut } from '@/desk/Help';
import { SittingStrip } from '@/desk/SittingPage';
import { useSitting } from '@/desk/useSitting';
import { useInHand } from '@/offline/useInHand';
import { EmptyState } from '@/ui/EmptyState';
import { fetchEditor } from '@/desk/RichField';
import { TwoColumns } from '@/ui/TwoColumns';
import { NewQuestion } from './NewQuestion';
import { ManyAtOnce } from './ManyAtOnce';
import {
  rowId,
  rowsOf,
  withCopy,
  withMany,
  withMoved,
  withNewPart,
  withNewQuestion,
  withoutQuestion,
  withQuestion,
  type ManyChange,
} from './paperEdits';
import { BankLink } from './BankLink';
import { PaperHead } from './PaperHead';
import { PaperMargin } from './PaperMargin';
import { KeyHint } from '@/ui/KeyHint';
import { QuestionMargin } from '../questions/QuestionMargin';
import { QuestionStack } from './QuestionStack';
import { usePaperDraft, type KeepPaper } from './usePaperDraft';
import styles from './write.module.css';

const shortcuts: Shortcut[] = [
  { keys: 'Ctrl Enter', does: 'add a question of the same kind after this one' },
  { keys: 'Alt ↑  Alt ↓', does: 'move the open question up or down' },
  { keys: 'Alt PgUp  Alt PgDn', does: 'open the question before or after' },
  { keys: 'Ctrl D', does: 'duplicate the open question' },
  { keys: 'Alt 1  Alt 2 …', does: 'make that option the right answer' },
  { keys: 'Alt P', does: 'go to its points' },
  { keys: 'Esc', does: 'close the open question' },
];

/** Writing a paper. */
export function WritePage({ paperId }: { paperId: string }) {
  const sittingId = new URLSearchParams(window.location.search).get('sitting');
  useInHand();
  return sittingId ? (
    <WriteInSitting paperId={paperId} sittingId={sittingId} />
  ) : (
    <DeskReady shortcuts={shortcuts}>
      <PaperEditor paperId={paperId} />
    </DeskReady>
  );
}

function WriteInSitting({ paperId, sittingId }: { paperId: string; sittingId: string }) {
  const sitting = useSitting(sittingId);
  return (
    <DeskReady shortcuts={shortcuts} strip={sitting && <SittingStrip sitting={sitting} current="write" />}>
      {/* Not before the strip, which would push it down under the hand. */}
      {sitting !== undefined && <PaperEditor paperId={paperId} />}
    </DeskReady>
  );
}

function PaperEditor({ paperId }: { paperId: string }) {
  const { paper, keep } = usePaperDraft(paperId);
  if (paper === null) return <EmptyState title="Paper not found" action={<a href="/">Go to the desk</a>} />;
  return paper ? <Editor paper={paper} keep={keep} /> : null;
}

function Editor({ paper, keep }: { paper: Paper; keep: KeepPaper }) {
  const [openId, setOpenId] = useState<string | null>(
    paper.questions.length === 1 ? (paper.questions[0]?.id ?? null) : null,
  );
  const [picked, setPicked] = useState<ReadonlySet<string> | null>(null);
  const rows = rowsOf(paper);
  const openIndex = rows.findIndex((row) => rowId(row) === openId);
  const open = paper.questions.find((question) => question.id === openId);
  const numbers = numbersOf(rows.flatMap((row) => ('question' in row ? row.question : [])));

  const openAndFocus = (id: string | null, field = 'stem') => {
    setOpenId(id);
    if (id) focusField(field);
  };
  const add = (kind: KindName) => {
    const next = withNewQuestion(paper, kind, openId, () => nanoid(12));
    keep(next.paper, `${kindOf(next.question).label} question added`);
    openAndFocus(next.question.id);
  };
  const move = (from: number, to: number) => {
    const next = withMoved(paper, from, to);
    if (next === paper) return;
    const row = rows[from];
    const id = row ? rowId(row) : '';
    const placed = numbersOf(rowsOf(next).flatMap((each) => ('question' in each ? each.question : [])));
    const said =
      row && 'part' in row
        ? 'Part moved'
        : numbers.get(id) === placed.get(id)
          ? `Question ${numbers.get(id)} moved to another part`
          : `Question ${numbers.get(id)} moved to ${placed.get(id)}`;
    keep(next, said);
  };
  const duplicate = (question: Question) => {
    const next = withCopy(paper, question, () => nanoid(12));
    keep(next.paper, 'Question duplicated');
    openAndFocus(next.question.id);
  };
  const remove = (question: Question) => {
    keep(withoutQuestion(paper, question.id), `Question ${numbers.get(question.id)} deleted`);
    setOpenId(null);
  };
  const goTo = (finding: Finding) => {
    if (finding.partId) focusField(finding.field ?? '');
    else if (finding.questionId) openAndFocus(finding.questionId, finding.field);
    else focusField(finding.field ?? 'title');
  };
  const step = (by: number) => {
    const order = rows.flatMap((row) => ('question' in row ? row.question.id : []));
    openAndFocus(order[order.indexOf(openId ?? '') + by] ?? openId);
  };
  const addPart = () => {
    const next = withNewPart(paper, openId, () => nanoid(12));
    keep(next.paper, 'Part added');
    focusField(`part-${next.part.id}`);
  };
  const makeRight = (place: number) => {
    const next = open && kindOf(open).withOptionRight?.(open, place);
    if (next) keep(withQuestion(paper, next), `Option ${optionLetter(place)} made right`);
  };
  const change = (many: ManyChange, said: string) => picked && keep(withMany(paper, picked, many), said);

  useEffect(fetchEditor, []);
  useHotkeys(
    [
      ['mod+Enter', () => add(open?.kind ?? 'oneChoice')],
      ['alt+ArrowUp', () => open && move(openIndex, openIndex - 1)],
      ['alt+ArrowDown', () => open && move(openIndex, openIndex + 1)],
      ['alt+PageUp', () => open && step(-1)],
      ['alt+PageDown', () => open && step(1)],
      ['mod+D', () => open && duplicate(open)],
      ['Escape', () => setOpenId(null)],
      ['alt+P', () => open && focusField('points'), { usePhysicalKeys: true }],
      // By the key and not its letter: with Alt, some keyboards write something else.
      ...[1, 2, 3, 4, 5, 6, 7, 8, 9].map((digit): HotkeyItem => [
        `alt+Digit${digit}`,
        () => makeRight(digit - 1),
        { usePhysicalKeys: true },
      ]),
    ],
    [],
    true,
  );

  return (
    <TwoColumns
      marginLabel={open ? 'About the open question' : 'About the paper'}
      margin={
        <>
          <PaperMargin
            paper={paper}
            keep={keep}
            goTo={goTo}
            brief={open !== undefined || picked !== null}
            pickMany={() => {
              setOpenId(null);
              setPicked(picked === null ? new Set() : null);
            }}
          />
          {picked && <ManyAtOnce paper={paper} picked={picked} pick={setPicked} change={change} />}
          {picked && (
            <Button size="compact-md" onClick={() => setPicked(null)}>
              Done
            </Button>
          )}
          {open && (
            <QuestionMargin
              key={open.id}
              question={open}
              name={`question ${numbers.get(open.id) ?? ''}`}
              keep={(question, said, field) => keep(withQuestion(paper, question), said, field)}
            >
              <div className={styles.actions}>
                <Button
                  onClick={() => duplicate(open)}
                  rightSection={<KeyHint keys="Ctrl D" />}
                  justify="space-between"
                >
                  Duplicate
                </Button>
                <Button onClick={() => remove(open)} justify="start">
                  Delete question
                </Button>
              </div>
            </QuestionMargin>
          )}
          {open && <BankLink paperId={paper.id} question={open} />}
        </>
      }
    >
      <PaperHead paper={paper} keep={keep} />
      <QuestionStack
        paper={paper}
        openId={openId}
        open={openAndFocus}
        move={move}
        picked={picked}
        pick={setPicked}
        keepPaper={keep}
        keep={(question, said, field) => keep(withQuestion(paper, question), said, field)}
      />
      <NewQuestion
        add={add}
        addPart={addPart}
        pasteAt={paper.questions.length === 0 ? `/papers/${paper.id}/paste` : null}
      />
    </TwoColumns>
  );
}

/** Puts the cursor where a field's name says, as soon as it is on the page; the editor may still be on its way. */
function focusField(field: string): void {
  const until = performance.now() + 2_000;
  const typable = 'input, textarea, button, select, [contenteditable="true"]';
  const look = () => {
    const element = document.getElementById(`field-${field}`);
    const target = element?.matches(typable) ? element : element?.querySelector<HTMLElement>(typable);
    if (!target) {
      if (performance.now() < until) requestAnimationFrame(look);
      return;
    }
    target.focus();
    element?.scrollIntoView({ block: 'nearest' });
  };
  requestAnimationFrame(() => requestAnimationFrame(look));
}
