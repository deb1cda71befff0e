import { Button, NativeSelect, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { Paper } from '@/core/model/paper';
import { counted } from '@/words/format';
import { PointsField } from '@/ui/PointsField';
import { MarginBlock } from '@/ui/TwoColumns';
import type { ManyChange } from './paperEdits';
import styles from './write.module.css';

interface ManyAtOnceProps {
  paper: Paper;
  picked: ReadonlySet<string>;
  pick: (picked: ReadonlySet<string>) => void;
  change: (change: ManyChange, said: string) => void;
}

/** What can be done to all the questions that are picked, each with one press, each with one undo. */
export function ManyAtOnce({ paper, picked, pick, change }: ManyAtOnceProps) {
  const [worth, setWorth] = useState<number | null>(1);
  const [tag, setTag] = useState('');
  const [share, setShare] = useState<number | null>(50);
  const these = counted(picked.size, 'question');
  const tags = [
    ...new Set(paper.questions.filter((each) => picked.has(each.id)).flatMap((each) => each.tags)),
  ];
  const all = paper.questions.every((question) => picked.has(question.id));
  return (
    <MarginBlock title={`${these} selected`}>
      <div className={styles.many}>
        <Button
          size="compact-sm"
          justify="start"
          onClick={() => pick(all ? new Set() : new Set(paper.questions.map(({ id }) => id)))}
        >
          {all ? 'Select none' : 'Select all'}
        </Button>
        <div className={styles.manyRow}>
          <PointsField label="Points for each selected question" w={64} value={worth} onPoints={setWorth} />
          <Button
            size="compact-sm"
            disabled={worth === null}
            onClick={() =>
              worth !== null && change({ what: 'points', points: worth }, `${these} worth ${worth} each`)
            }
          >
            points each
          </Button>
        </div>
        <div className={styles.manyRow}>
          <TextInput
            size="xs"
            aria-label="Tag"
            placeholder="Tag"
            value={tag}
            list="tags-of-picked"
            onChange={(event) => setTag(event.currentTarget.value)}
          />
          <datalist id="tags-of-picked">
            {tags.map((each) => (
              <option key={each} value={each} />
            ))}
          </datalist>
          <Button
            size="compact-sm"
            disabled={!tag.trim()}
            onClick={() => change({ what: 'addTag', tag: tag.trim() }, `${these} tagged ${tag.trim()}`)}
          >
            Add tag
          </Button>
          <Button
            size="compact-sm"
            disabled={!tag.trim()}
            onClick={() =>
              change({ what: 'removeTag', tag: tag.trim() }, `Tag ${tag.trim()} removed from ${these}`)
            }
          >
            Remove tag
          </Button>
        </div>
        <div className={styles.manyRow}>
          <PointsField
            label="Percent of the points by key, where working is asked for"
            w={64}
            max={100}
            value={share}
            onPoints={setShare}
          />
          <Button
            size="compact-sm"
            disabled={share === null}
            onClick={() =>
              share !== null &&
              change({ what: 'working', keyShare: share / 100 }, `Working asked for in ${these}`)
            }
          >
            % by key, rest for working
          </Button>
        </div>
        <Button
          size="compact-sm"
          justify="start"
          onClick={() => change({ what: 'working', keyShare: null }, `Working removed from ${these}`)}
        >
          Don’t ask for working
        </Button>
        <Button
          size="compact-sm"
          justify="start"
          onClick={() => change({ what: 'shuffle', on: true }, `Options of ${these} shuffled`)}
        >
          Shuffle options
        </Button>
        <Button
          size="compact-sm"
          justify="start"
          onClick={() => change({ what: 'shuffle', on: false }, `Options of ${these} in written order`)}
        >
          Keep options in written order
        </Button>
        {paper.parts && (
          <NativeSelect
            size="xs"
            aria-label="Move the selected questions to"
            value="choose"
            data={[
              { value: 'choose', label: 'Move to…' },
              { value: '', label: 'before the first part' },
              ...paper.parts.map(({ id, title }) => ({ value: id, label: title || 'part without a title' })),
            ]}
            onChange={(event) => {
              const partId = event.currentTarget.value;
              if (partId !== 'choose') change({ what: 'moveTo', partId: partId || null }, `${these} moved`);
            }}
          />
        )}
        <Button
          size="compact-sm"
          justify="start"
          onClick={() => {
            change({ what: 'delete' }, `${these} deleted`);
            pick(new Set());
          }}
        >
          Delete questions
        </Button>
      </div>
    </MarginBlock>
  );
}
