import type { FilesResponse, StudentFileQuestion } from '@/core/kinds/file/schema';
import { fileSorts, isTaken, sortWords } from '@/core/kinds/file/sorts';
import type { SitProps } from '../KindView';
import { FilesField } from './FilesField';

export function Sit({
  question,
  response,
  respond,
  labelledBy,
  disabled,
}: SitProps<StudentFileQuestion, FilesResponse>) {
  const { sorts, most } = question;
  const known = sorts.flatMap((sort) => [...fileSorts[sort].types, ...fileSorts[sort].endings]);
  return (
    <div role="group" aria-labelledby={labelledBy}>
      <FilesField
        files={response?.files ?? []}
        most={most}
        add={`Add ${sortWords(sorts)}`}
        accept={known.join(',')}
        refused={(file) =>
          isTaken({ name: file.name, mediaType: file.type }, sorts)
            ? null
            : `${file.name} isn’t accepted here: add ${sortWords(sorts)}.`
        }
        prepared={async (file) => ({
          name: file.name,
          mediaType: file.type || 'application/octet-stream',
          bytes: new Uint8Array(await file.arrayBuffer()),
        })}
        disabled={disabled ?? false}
        change={(files) => respond({ files })}
      />
    </div>
  );
}
