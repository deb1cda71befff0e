import { kindOf, type Response } from '@/core/kinds';
import type { Chance } from '@/core/basics/chance';
import type { DemoQuestion } from './DemoQuestion';

/** One student's ability, 0 in the middle and 1 a standard deviation above. */
export type Ability = number;

/** What a made-up student did with a question; `lines` are the scheme lines an open answer meets. */
export interface MadeUpAnswer {
  response: Response | null;
  lines: string[];
}

/** The chance of being right rises with ability over difficulty, as in the Rasch model (Rasch 1960), a little steeper. */
function knows(ability: Ability, difficulty: number): number {
  return 1 / (1 + Math.exp(-1.4 * (ability + 0.5 - difficulty)));
}

export function madeUpAnswer(demo: DemoQuestion, ability: Ability, chance: Chance): MadeUpAnswer {
  const share = knows(ability, demo.difficulty);
  const { question } = demo;
  if (chance.happens((1 - share) * (question.kind === 'openText' ? 0.16 : 0.04)))
    return { response: null, lines: [] };
  if (question.kind === 'openText') return openAnswer(demo, share, chance);
  return { response: keyedResponse(demo, share, chance), lines: [] };
}

function keyedResponse(
  { question, draws = [], wrong = [], meant, instead }: DemoQuestion,
  share: number,
  chance: Chance,
): Response {
  const right = chance.happens(share);
  if (right && instead && chance.happens(instead.share)) return instead.response;
  switch (question.kind) {
    case 'oneChoice':
      return {
        picked: [right && question.key ? (meant ?? question.key) : chance.pick(question.options, draws).id],
      };
    case 'severalChoices': {
      const picked = question.options.filter((option) =>
        chance.happens(question.key.includes(option.id) ? 0.35 + 0.62 * share : 0.5 * (1 - share)),
      );
      return {
        picked: (picked.length > 0 ? picked : question.options.slice(0, 1)).map((option) => option.id),
      };
    }
    case 'shortText': {
      const full = question.accepted.filter((accepted) => accepted.share === 1);
      const part = question.accepted.filter((accepted) => accepted.share < 1);
      if (right)
        return {
          text: chance.pick(
            full,
            full.map((_, index) => 1 / (index + 1)),
          ).text,
        };
      return {
        text:
          part.length > 0 && chance.happens(0.4)
            ? chance.pick(part).text
            : chance.pick(
                wrong,
                wrong.map((_, index) => 1 / (index + 1)),
              ),
      };
    }
    default: {
      const kind = kindOf(question);
      const response = right ? kind.rightAnswer(question) : kind.partlyRight(question);
      if (!response) throw new Error(`nothing to answer ${question.id} with`);
      return response;
    }
  }
}

/** An open answer from what this student would say, in one of its wordings, now and then with a slip of the keys. */
function openAnswer({ sayings = [], stock = [] }: DemoQuestion, share: number, chance: Chance): MadeUpAnswer {
  if (chance.happens(0.16)) {
    const { text, lines } = chance.pick(stock);
    return { response: { text }, lines: [...lines] };
  }
  const said = sayings.filter(({ line, likely }) =>
    chance.happens(line === null ? likely * 2 * (1 - share) : likely * (0.35 + share)),
  );
  if (said.length === 0)
    return {
      response: { text: chance.pick(["I don't know", 'not sure', 'we did this when I was away', '?']) },
      lines: [],
    };
  const text = said.map((saying) => chance.pick(saying.wordings)).join(' ');
  return {
    response: { text: chance.happens(0.2) ? slipped(text, chance) : text },
    lines: said.flatMap((saying) => saying.line ?? []),
  };
}

/** Two neighbouring letters swapped somewhere. */
function slipped(text: string, chance: Chance): string {
  const at = chance.whole(1, Math.max(1, text.length - 3));
  return text.slice(0, at) + text.charAt(at + 1) + text.charAt(at) + text.slice(at + 2);
}
