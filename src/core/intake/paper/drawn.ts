import type { SetPiece } from '../../formats/typeset/setText';
import type { Region } from '../../model/answerPaper';

/** One thing that is drawn on a page; mm, from the upper left corner. Text stands on its line. */
export type Drawn =
  | SetPiece
  | { as: 'box' | 'area' | 'filled'; x: number; y: number; w: number; h: number }
  | { as: 'cross'; x: number; y: number; w: number; h: number; soft?: true }
  | { as: 'code'; x: number; y: number; w: number; h: number; text: string }
  | { as: 'line'; x: number; y: number; w: number }
  /** A picture, by the id of its file. */
  | { as: 'picture'; x: number; y: number; w: number; h: number; asset: string };

/** One page as it is printed, but for whose it is. */
export interface LaidPage {
  drawn: Drawn[];
  regions: Region[];
}
