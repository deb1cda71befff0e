import { one, open, several, short } from '../DemoQuestion';

/** Collision rules (IRPCS): running, with some still working. */
export const rules = {
  title: 'Quiz 2: collision rules',
  instructions: 'The International Regulations for Preventing Collisions at Sea. No books, no phones.',
  questions: [
    one(
      'r1',
      'Two power-driven vessels meet head-on. What do they do?',
      [
        ['Both alter course to starboard', 0],
        ['Both alter course to port', 2],
        ['The faster one keeps clear', 2],
        ['The one to leeward keeps clear', 1, 'Leeward and windward are for vessels under sail.'],
      ],
      { tags: ['steering rules'], difficulty: -1.3 },
    ),
    one(
      'r2',
      'Two sailing vessels with the wind on different sides. Which keeps out of the way?',
      [
        ['The one with the wind on the port side', 0],
        ['The one with the wind on the starboard side', 3],
        ['The one to windward', 3, 'Windward keeps clear when both have the wind on the same side.'],
        ['The smaller one', 1],
      ],
      { tags: ['steering rules', 'sail'], difficulty: -0.5 },
    ),
    one(
      'r3',
      'A yacht under sail overtakes a motor cruiser. Who keeps clear?',
      [
        [
          'The motor cruiser, because power gives way to sail',
          4,
          'Whoever overtakes keeps clear, sail or not.',
        ],
        ['The yacht, because she is overtaking', 0],
        ['Both alter to starboard', 1],
        ['Nobody, while they are more than a cable apart', 1],
      ],
      { tags: ['steering rules', 'overtaking'], difficulty: 0.4 },
    ),
    short(
      'r4',
      'How many short blasts mean “I am altering my course to port”?',
      [
        ['2', 1],
        ['two', 1],
        ['two short blasts', 1],
        ['2 short blasts', 1],
        ['two short', 1],
        ['2 short', 1],
        ['two blasts', 1],
        ['2 blasts', 1],
      ],
      ['1', 'one', '3', 'three', '5', 'one short'],
      { tags: ['sound signals'], difficulty: -0.6 },
    ),
    several(
      'r5',
      'Which of these tell you that a risk of collision exists, or may exist?',
      [
        ['The compass bearing of the other vessel does not change appreciably', 0],
        ['Her bearing draws aft fast while she is still miles away', 2],
        ['A very large vessel or a tow comes near, even though the bearing changes', 0],
        ['The other vessel shows you her stern and draws away', 1],
      ],
      { tags: ['look-out'], difficulty: 0.2 },
    ),
    short(
      'r6',
      'What does a vessel show by day when she is at anchor?',
      [
        ['one ball', 1],
        ['a ball', 1],
        ['ball', 1],
        ['a black ball', 1],
        ['one black ball', 1],
        ['a black ball forward', 1],
        ['1 ball', 1],
        ['1 black ball', 1],
        ['black ball', 1],
        ['a ball forward', 1],
        ['one ball forward', 1],
        ['one black ball forward', 1],
        ['a black ball in the fore part', 1],
      ],
      ['a cone', 'two balls', 'three balls', 'a flag', 'black cone', '2 balls', 'a diamond'],
      { tags: ['shapes'], difficulty: -0.2 },
    ),
    one(
      'r7',
      'In a narrow channel a vessel keeps',
      [
        ['as near to its outer limit on her starboard side as is safe', 0],
        ['in the middle, where the buoys would lead her', 2],
        ['to its port side', 2],
        ['where the water is deepest', 2],
      ],
      { tags: ['steering rules'], difficulty: -0.8 },
    ),
    open(
      'r8',
      'You are under power. A vessel comes from your starboard side on a steady bearing. Say what you do and why.',
      'There is a risk of collision because the bearing is steady. She is on my starboard side, so I keep out of her way: early and clearly, by altering to starboard or slowing down, and without crossing ahead of her.',
      [
        ['a', 'steady bearing means risk of collision', 1],
        ['b', 'I am the one to keep clear', 1],
        ['c', 'early and clearly, not crossing ahead', 1],
      ],
      {
        sayings: [
          {
            line: 'a',
            likely: 0.5,
            wordings: [
              'The bearing is steady so we would collide.',
              'There is a risk of collision.',
              'constant bearing = collision',
            ],
          },
          {
            line: 'b',
            likely: 0.75,
            wordings: [
              'She is on my starboard side so I have to give way.',
              'i give way',
              'I must keep clear because she comes from starboard.',
            ],
          },
          {
            line: 'c',
            likely: 0.5,
            wordings: [
              'I alter course early to starboard and go behind her.',
              'slow down and pass astern',
              'A big change of course to starboard, not in front of her.',
            ],
          },
          {
            line: null,
            likely: 0.15,
            wordings: ['I keep my course.', 'I sound five short blasts.', 'I go to port.'],
          },
        ],
        stock: [
          ['I give way.', 'b'],
          ['Give way, she is on my starboard side', 'b'],
          ['I keep my course because I am under power.'],
        ],
      },
      { tags: ['steering rules'], difficulty: 0 },
    ),
  ],
};
