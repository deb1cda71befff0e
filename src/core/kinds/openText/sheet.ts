import type { SheetKind } from '../../formats/sheet/SheetKind';
import type { OpenText } from './schema';

export const openTextSheet: SheetKind<OpenText> = {
  suits: ({ key }) => key === '',
  read: (empty, { key }) => ({ ...empty, modelAnswer: key, scheme: [] }),
  holds: ({ scheme }) => scheme.every((line) => !line.text.trim()),
  keyCell: ({ modelAnswer }) => modelAnswer || null,
};
