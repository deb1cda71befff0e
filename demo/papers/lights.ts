import { keyedWrongly, one, open, several, short } from '../DemoQuestion';

/** The first quiz: lights and marks (IALA region A). Analysed and handed back. */
export const lights = {
  title: 'Quiz 1: lights and marks',
  instructions: 'All marks are those of Region A. You may not use the chart symbols booklet.',
  questions: [
    one(
      'l1',
      'Entering harbour from seaward in region A, which lateral mark do you leave to port?',
      [
        ['A red can', 0],
        ['A green cone', 3, 'Green is starboard in region A when entering.'],
        ['A red and white pillar', 1],
        ['A yellow buoy', 1],
      ],
      { tags: ['marks'], difficulty: -1.4 },
    ),
    one(
      'l2',
      'Two black cones, points together. Which cardinal mark is it?',
      [
        ['North', 1],
        ['East', 3, 'East has its cones base to base.'],
        ['South', 1],
        ['West', 0],
      ],
      {
        tags: ['marks'],
        difficulty: 0,
        commentRight: 'Points together like the waist of a wine glass: west.',
      },
    ),
    short(
      'l3',
      'What light character does a north cardinal mark have?',
      [
        ['quick or very quick, uninterrupted', 1],
        ['Q or VQ', 1],
        ['VQ or Q', 1],
        ['Q', 1],
        ['VQ', 1],
        ['Q or VQ, white', 1],
        ['VQ or Q, white', 1],
        ['quick', 1],
        ['very quick', 1],
        ['quick or very quick', 1],
        ['quick flashing', 1],
        ['very quick flashing', 1],
        ['quick flashing, white', 1],
        ['very quick flashing, white', 1],
        ['continuous quick flashing', 1],
        ['uninterrupted quick flashing', 1],
        ['white', 0.25, 'White is right, but it is the rhythm that tells it from the others.'],
      ],
      ['Q(3)', 'flashing', '3 flashes', 'Q(9) 15s', 'Fl 5s', 'Oc', 'Isophase', 'VQ(3)'],
      { tags: ['marks', 'lights'], difficulty: 0.4 },
    ),
    one(
      'l4',
      'What does an isolated danger mark show at night?',
      [
        ['Group flashing two, white', 0],
        ['Isophase white', 3, 'That is safe water.'],
        ['Flashing yellow', 1],
        ['Quick flashing white', 2],
      ],
      { tags: ['marks', 'lights'], difficulty: 0.2 },
    ),
    several(
      'l5',
      'Which marks can show a white light?',
      [
        ['Cardinal marks', 0],
        ['Safe water marks', 0],
        ['Isolated danger marks', 0],
        ['Special marks', 2, 'Special marks show yellow.'],
        ['Lateral marks', 2],
      ],
      { tags: ['marks', 'lights'], difficulty: 0.3 },
    ),
    one(
      'l6',
      'A chart shows “Fl(3) 10s 25m 18M”. What is 18M?',
      [
        ['The height of the light', 2, 'The height is 25m, with a small m.'],
        ['The nominal range in nautical miles', 0],
        ['The distance to the harbour', 1],
        ['The year it was built', 1],
      ],
      { tags: ['lights', 'chart work'], difficulty: -0.7 },
    ),
    short(
      'l7',
      'Over what arc, in degrees, does a masthead light show?',
      [
        ['225', 1],
        ['225°', 1],
        ['225 degrees', 1],
        ['225 deg', 1],
      ],
      ['135', '112.5', '360', '180', '135°', '270', '112,5°'],
      { tags: ['lights'], difficulty: 0.5 },
    ),
    several(
      'l8',
      'A sailing vessel under way at night shows',
      [
        ['sidelights', 0],
        ['a sternlight', 0],
        ['a masthead light', 3, 'A masthead light means that she is under power.'],
        ['an all-round white light', 1],
      ],
      { tags: ['lights', 'collision rules'], difficulty: 0 },
    ),
    one(
      'l9',
      'You see a red light above a white light, and below them a red sidelight. What is it?',
      [
        ['A vessel fishing, not trawling, seen from her port side', 0],
        ['A pilot vessel', 4, 'A pilot vessel has white over red.'],
        ['A vessel not under command, making way', 2, 'She has two red lights.'],
        ['A vessel aground', 1],
      ],
      { tags: ['lights', 'collision rules'], difficulty: 1.3 },
    ),
    open(
      'l10',
      'You pass a south cardinal mark. Describe its topmark, its light, and on which side the safe water is.',
      'Two cones pointing down; quick (or very quick) flashing six and a long flash, every 15 s (10 s); the safe water is to the south of it.',
      [
        ['a', 'both cones point down', 1],
        ['b', 'six flashes and a long one', 1],
        ['c', 'safe water to the south', 1],
      ],
      {
        sayings: [
          {
            line: 'a',
            likely: 0.75,
            wordings: [
              'Both cones point down.',
              'two cones downwards',
              'The topmark is two black cones with the points down.',
              'both triangels point to the bottom',
            ],
          },
          {
            line: 'b',
            likely: 0.5,
            wordings: [
              'The light is six quick flashes and one long flash.',
              'Q(6)+LFl 15s',
              '6 flashes plus a long one',
              'VQ(6) + LFl. 10s',
            ],
          },
          {
            line: 'c',
            likely: 0.7,
            wordings: [
              'Safe water is south of the mark.',
              'pass it on the south side',
              'You go south of it.',
              'safe to the south',
            ],
          },
          {
            line: null,
            likely: 0.15,
            wordings: ['It is yellow and black.', 'The danger is in the south.', 'three flashes'],
          },
        ],
        stock: [
          ['Points down, pass south.', 'a', 'c'],
          ['cones down, south', 'a', 'c'],
          ['Q(6)+LFl, south', 'b', 'c'],
        ],
      },
      { tags: ['marks', 'lights'], difficulty: 0.1 },
    ),
    // The key is wrong, and nobody noticed before the answers came in: Analyse finds it.
    keyedWrongly(
      one(
        'l11',
        'Besides her sidelights and sternlight, what may a sailing vessel show at the top of the mast?',
        [
          ['Two all-round lights, red over green', 0],
          ['Two all-round lights, green over red', 3],
          ['Two all-round lights, white over red', 2],
          ['One all-round flashing yellow light', 2],
        ],
        { tags: ['lights', 'collision rules'], difficulty: -0.4 },
      ),
      'Two all-round lights, green over red',
    ),
  ],
};
