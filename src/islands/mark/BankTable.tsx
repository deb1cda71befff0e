import { Button, Table, TextInput } from '@mantine/core';
import { useState } from 'react';
import { commentRows, commentsCsv, type BadComment } from '@/core/formats/csv/comments';
import { fileNameOf } from '@/core/formats/fileName';
import type { OfferedComment } from '@/core/marking/commentBank';
import { commentFieldNames } from '@/core/handback/commentText';
import { changeCommentBank, removeFromCommentBank, type PutComment } from '@/store/comments';
import { act, say } from '@/desk/act';
import { isoNow } from '@/ui/clock';
import { FileButton } from '@/ui/FileButton';
import { KeptTextarea } from '@/ui/KeptTextarea';
import { saveFile } from '@/ui/saveFile';
import { counted, points as shown, pointsFrom } from '@/words/format';
import { refusalWords } from '@/words/losses';
import { readSheet } from '@/workers/readSheet';
import { usesWords } from './CommentField';
import styles from './mark.module.css';

interface BankTableProps {
  questionId: string;
  number: string;
  comments: readonly OfferedComment[];
}

/** The comments of the bank, one a row, and how they go out and come in. */
export function BankTable({ questionId, number, comments }: BankTableProps) {
  const [bad, setBad] = useState<readonly BadComment[]>([]);
  const keyOf = useSteadyKeys();
  const rowOf = ({ text, code, points, kept }: OfferedComment) =>
    kept ?? { questionId, text, code, points, removed: false };
  const change = (comment: OfferedComment, to: Partial<PutComment>, said: string) =>
    void act(changeCommentBank([{ ...rowOf(comment), ...to }], said, isoNow()));
  const remove = (comment: OfferedComment) => {
    const said = 'Comment removed from the bank';
    // What was typed in marks would come back by itself: it is kept as taken out.
    if (comment.uses + comment.usesElsewhere > 0) change(comment, { removed: true }, said);
    else if (comment.kept) void act(removeFromCommentBank([comment.kept.id], said, isoNow()));
  };
  const importFile = async (file: File | null) => {
    if (!file) return;
    const read = await act(readSheet(file).result);
    if (!read) return;
    if ('refused' in read) return say(refusalWords(read.refused, file.name), true);
    const { good, bad: unread } = commentRows(read.read);
    setBad(unread);
    const known = new Set(comments.map(({ text }) => text));
    const fresh = good.filter(({ text }) => !known.has(text));
    const said = `${counted(fresh.length, 'comment')} imported`;
    if (fresh.length === 0) say('Nothing new in this file');
    else
      await act(
        changeCommentBank(
          fresh.map((each) => ({ ...each, questionId, removed: false })),
          said,
          isoNow(),
        ),
      );
  };
  return (
    <>
      <p className={styles.soft}>
        What you type is remembered. In a comment, {commentFieldNames.join(' and ')} are filled in for each
        student, and web addresses become links.
      </p>
      {comments.length === 0 ? (
        <p>No comments yet.</p>
      ) : (
        <Table aria-label="Comments">
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Comment</Table.Th>
              <Table.Th>Code</Table.Th>
              <Table.Th>Points</Table.Th>
              <Table.Th>Used</Table.Th>
              <Table.Th>
                <span className="visuallyHidden">Remove</span>
              </Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {comments.map((comment) => (
              <BankRow
                key={keyOf(comment)}
                comment={comment}
                change={(to, said) => change(comment, to, said)}
                remove={() => remove(comment)}
              />
            ))}
          </Table.Tbody>
        </Table>
      )}
      <div className={styles.pileActs}>
        <Button
          size="compact-sm"
          onClick={() =>
            saveFile(
              `comments-${fileNameOf(`question ${number}`)}.csv`,
              'text/csv;charset=utf-8',
              commentsCsv(comments),
            )
          }
        >
          Export as CSV
        </Button>
        <FileButton onChange={(file) => void importFile(file)} accept=".csv,.tsv,.txt,.xlsx,.ods">
          {(props) => (
            <Button size="compact-sm" {...props}>
              Import comments
            </Button>
          )}
        </FileButton>
      </div>
      {bad.length > 0 && (
        <ul role="alert">
          {bad.map(({ line, why }) => (
            <li key={line}>
              Row {line}: {badWords[why]}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

interface BankRowProps {
  comment: OfferedComment;
  change: (to: Partial<PutComment>, said: string) => void;
  remove: () => void;
}

/** One comment; what is typed beside it is kept once its field is left. */
function BankRow({ comment, change, remove }: BankRowProps) {
  const [refused, setRefused] = useState(false);
  return (
    <Table.Tr>
      <Table.Td>
        {comment.kept ? (
          <KeptTextarea
            size="xs"
            aria-label="Comment"
            value={comment.text}
            onKeep={(text) => text.trim() && change({ text }, 'Comment in the bank changed')}
          />
        ) : (
          comment.text
        )}
      </Table.Td>
      <Table.Td>
        <TextInput
          size="xs"
          w={70}
          aria-label={`Code of “${comment.text}”`}
          defaultValue={comment.code}
          maxLength={20}
          onBlur={(event) => {
            const code = event.currentTarget.value.trim();
            if (code !== comment.code) change({ code }, 'Code of a comment changed');
          }}
        />
      </Table.Td>
      <Table.Td>
        <TextInput
          size="xs"
          w={76}
          inputMode="decimal"
          aria-label={`Points of “${comment.text}”`}
          defaultValue={comment.points === null ? '' : shown(comment.points)}
          error={refused && 'not a number'}
          onBlur={(event) => {
            const typed = event.currentTarget.value.trim();
            const points = typed === '' ? null : pointsFrom(typed);
            const fault = typed !== '' && (points === null || Math.abs(points) > 1000);
            setRefused(fault);
            if (!fault && points !== comment.points) change({ points }, 'Points of a comment changed');
          }}
        />
      </Table.Td>
      <Table.Td className={styles.soft}>{usesWords({ ...comment, points: null })}</Table.Td>
      <Table.Td>
        <Button size="compact-sm" onClick={remove}>
          Remove
        </Button>
      </Table.Td>
    </Table.Tr>
  );
}

/** The same key for a comment before and after it is put in the bank, and while its words are changed: the focus stays. */
function useSteadyKeys(): (comment: OfferedComment) => string {
  const [keys] = useState(() => new Map<string, string>());
  return ({ text, kept }) => {
    const key = keys.get(kept?.id ?? '') ?? keys.get(`text ${text}`) ?? text;
    keys.set(`text ${text}`, key);
    if (kept) keys.set(kept.id, key);
    return key;
  };
}

const badWords: Record<BadComment['why'], string> = {
  noText: 'there is no comment in it',
  tooLong: 'the comment or its code is too long',
  badPoints: 'the points are not a number',
};
