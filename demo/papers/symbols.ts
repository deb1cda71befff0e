import { one, open, several, short } from '../DemoQuestion';

/** The fifth sitting: on paper, since the chart room has no devices. Half of the group's papers are scanned. */
export const symbols = {
  title: 'Chart symbols, on paper',
  instructions: 'Twenty minutes, with the chart but without the booklet of symbols.',
  questions: [
    one(
      's1',
      'A small cross with a dot in each of its four corners stands on the chart. What is it?',
      [
        ['A rock awash at the level of chart datum', 0],
        ['A wreck that shows at low water', 2],
        ['A rock that is always under water', 3, 'That is the cross without dots.'],
        ['A place to anchor', 1],
      ],
      { tags: ['symbols'], difficulty: 0.3 },
    ),
    one(
      's2',
      'A depth is printed with a line under it: 2 and, smaller, 5, underlined. What does it say?',
      [
        ['It dries 2.5 metres above chart datum', 0],
        ['It is 2.5 metres deep at chart datum', 3],
        ['It was measured in 1925', 1],
        ['It is 25 metres deep', 1],
      ],
      { tags: ['depths'], difficulty: 0.1 },
    ),
    one(
      's3',
      'What is the height of a light on the chart measured from?',
      [
        ['Chart datum', 3],
        ['Mean high water springs', 0],
        ['Mean sea level', 2],
        ['The ground it stands on', 1],
      ],
      { tags: ['lights', 'depths'], difficulty: 0.6 },
    ),
    several(
      's4',
      'Which of these tell of what the sea bed is made of?',
      [
        ['S', 0],
        ['M', 0],
        ['R', 0],
        ['Fl', 1],
        ['Wk', 1],
      ],
      { tags: ['symbols'], difficulty: 0 },
    ),
    one(
      's5',
      'A magenta line of dashes with a small anchor along it surrounds…',
      [
        ['an area where ships anchor', 0],
        ['an area where anchoring is forbidden', 3],
        ['a fish farm', 1],
        ['a cable', 1],
      ],
      { tags: ['symbols'], difficulty: -0.3 },
    ),
    short(
      's6',
      'What does “Wk” stand for?',
      [
        ['wreck', 1],
        ['a wreck', 1],
      ],
      ['weak', 'week', 'works', 'weed'],
      { tags: ['symbols'], difficulty: -0.6 },
    ),
    open(
      's7',
      'The compass rose of the chart says 3° 30′ W 2019 (8′ E). What is the variation this year, and how do you come to it?',
      'Seven years at 8′ E are 56′. The variation was west and grows less: about 2° 34′ W, say 2.5° W.',
      [
        ['a', 'Counts the years and multiplies by the yearly change', 1],
        ['b', 'Takes it off, since the change is east and the variation west', 1],
        ['c', 'Says about 2.5° W', 1],
      ],
      {
        sayings: [
          {
            line: 'a',
            likely: 0.8,
            wordings: ['7 years x 8 min = 56 min', 'it changes 8 minutes a year so about 1 degree'],
          },
          {
            line: 'b',
            likely: 0.6,
            wordings: ['east so it gets less', 'I take it off because W and E are opposite'],
          },
          { line: 'c', likely: 0.55, wordings: ['2 1/2 W', 'so now about 2.5 deg west'] },
          { line: null, likely: 0.25, wordings: ['so 4.5 W', 'the rose turns each year'] },
        ],
        stock: [
          ['7 x 8 = 56 min, W minus E, so 2 deg 34 W', 'a', 'b', 'c'],
          ['about two and a half degrees west now', 'c'],
          ['3.5 W, it is printed there'],
        ],
      },
      { tags: ['compass'], points: 3, difficulty: 0.2 },
    ),
  ],
};
