import type { Question } from '@/core/kinds';
import { one, open, several, short } from '../DemoQuestion';

const none = { sayings: [], stock: [] };

/** Weather: still being written, so that there is something left to look at. */
export const weather: { title: string; instructions: string; questions: Question[] } = {
  title: 'Quiz 3: weather for coastal passages',
  instructions: 'Northern hemisphere throughout.',
  questions: [
    one(
      'w1',
      'You stand with your back to the wind. Where is the low pressure?',
      [
        ['On your left', 0],
        ['On your right', 1],
        ['Ahead of you', 1],
        ['Behind you', 1],
      ],
      { tags: ['pressure'], commentWrong: 'Buys Ballot’s law: back to the wind, low on the left.' },
    ).question,
    several(
      'w2',
      'What usually happens when a cold front goes through?',
      [
        ['The wind veers', 0],
        ['The pressure begins to rise', 0],
        ['The wind backs', 1],
        ['It becomes warmer', 1],
      ],
      { tags: ['fronts'] },
    ).question,
    short(
      'w3',
      'Which Beaufort force has a mean wind of 22 to 27 knots?',
      [
        ['6', 1],
        ['force 6', 1],
        ['F6', 1],
        ['strong breeze', 1],
      ],
      [],
      {
        tags: ['wind'],
      },
    ).question,
    one(
      'w4',
      'A sea breeze along the coast is strongest',
      [
        ['at dawn', 1],
        ['in the afternoon', 1],
        ['at dusk', 1],
        ['around midnight', 1],
      ],
      { tags: ['wind'] },
    ).question,
    open(
      'w5',
      'Explain why the sea is rougher when the wind blows against the tidal stream.',
      '',
      [['a', '', 1]],
      none,
      { tags: ['sea state'] },
    ).question,
    one(
      'w6',
      '',
      [
        ['', 1],
        ['', 1],
      ],
      { tags: ['fog'] },
    ).question,
  ],
};
