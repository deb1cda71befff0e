import { z } from 'zod';
import { mostText } from './mostText';

export const Id = z.string().min(1).max(64);

/** An instant, ISO 8601 in UTC. */
export const Instant = z.iso.datetime();

/** Free text with a generous bound, so that a damaged or hostile file cannot fill the desk. */
export const Text = z.string().max(mostText);

/** A short line: a title, a name, a tag. */
export const Line = z.string().max(500);

/** Points, in steps of a hundredth; the fields of the interface offer quarters. */
export const Points = z.number().min(0).max(1000);

/** Something found by a check, as data; the interface puts it into words. */
export interface Finding {
  /** `stops`: the paper cannot be used so. `look`: worth a look. */
  level: 'stops' | 'look';
  code: FindingCode;
  /** The question it is about; none when it is about the paper as a whole. */
  questionId?: string;
  /** The part it is about. */
  partId?: string;
  /** Which field of the question to go to, as the name of its editor field. */
  field?: string;
  /** What the words need: the text of an option, a number of points. */
  detail?: string;
}

export type FindingCode =
  | 'noTitle'
  | 'noQuestions'
  | 'noStem'
  | 'noPoints'
  | 'fewOptions'
  | 'emptyOption'
  | 'equalOptions'
  | 'noKey'
  | 'everyOptionRight'
  | 'emptyAccepted'
  | 'equalAccepted'
  | 'noFullAnswer'
  | 'fewItems'
  | 'fewTargets'
  | 'emptyItem'
  | 'equalItems'
  | 'itemWithoutKey'
  | 'noGaps'
  | 'gapNotInText'
  | 'gapWithoutKey'
  | 'hiddenTier'
  | 'neverMet'
  | 'noUnit'
  | 'badLink'
  | 'drawTooMany'
  | 'unevenDraw'
  | 'emptyPart'
  | 'wrongTotal'
  | 'longestRight'
  | 'aboveShuffled'
  | 'noScheme'
  | 'emptySchemeLine'
  | 'emptySchemeGroup'
  | 'levelsOutOfOrder'
  | 'capOutOfReach'
  | 'schemeBelowPoints'
  | 'noWays'
  | 'onlyDrawing'
  | 'emptyHint'
  | 'pictureWithoutText';
