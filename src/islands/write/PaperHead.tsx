import { Textarea, TextInput } from '@mantine/core';
import type { Paper } from '@/core/model/paper';
import type { KeepPaper } from './usePaperDraft';
import styles from './write.module.css';

/** The head of the paper: its title and what students read first. */
export function PaperHead({ paper, keep }: { paper: Paper; keep: KeepPaper }) {
  return (
    <div className={styles.head}>
      <h1 className="visuallyHidden">Write: {paper.title || 'paper without a title'}</h1>
      <TextInput
        id="field-title"
        aria-label="Title"
        placeholder="Title of the paper"
        variant="unstyled"
        classNames={{ input: styles.titleInput ?? '' }}
        value={paper.title}
        onChange={(event) => keep({ ...paper, title: event.currentTarget.value }, 'Title changed', 'title')}
      />
      <Textarea
        id="field-instructions"
        aria-label="Instructions"
        placeholder="Instructions: what students read before they start"
        autosize
        minRows={1}
        size="sm"
        value={paper.instructions}
        onChange={(event) =>
          keep({ ...paper, instructions: event.currentTarget.value }, 'Instructions changed', 'instructions')
        }
      />
    </div>
  );
}
